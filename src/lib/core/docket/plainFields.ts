import * as z from 'zod';
import { isLength } from '../measure/lengthSchema';
import { placeSchema } from '../select/place';
import { selectionSchema } from '../model/selection';
import { limitsOfNumber, type Limits } from './limitsOf';

/** A field of a form as its schema has it: what it holds, and within which bounds. */
export interface PlainField {
  name: string;
  /** It may be left out. */
  optional: boolean;
  holds:
    | ({ type: 'length' | 'number' } & Limits)
    | { type: 'text'; longest: number }
    | { type: 'choice'; values: readonly (string | number | boolean)[] }
    | { type: 'place' | 'pages' };
}

/** What every step has, and what its form asks for in a way of its own. */
const ASKED_APART: ReadonlySet<string> = new Set(['id', 'kind', 'off', 'recipe', 'pages']);

/** The fields that a form can draw from a schema alone, in its order; what is made of several values is not among them. */
export function plainFields(schema: z.ZodObject, apart: readonly string[] = []): PlainField[] {
  return Object.entries(schema.shape).flatMap(([name, inner]) => {
    if (ASKED_APART.has(name) || apart.includes(name)) return [];
    const optional = inner instanceof z.ZodOptional;
    const holds = holdsOf(optional ? inner.unwrap() : inner);
    return holds ? [{ name, optional, holds }] : [];
  });
}

function holdsOf(given: z.core.$ZodType): PlainField['holds'] | undefined {
  if (given === placeSchema) return { type: 'place' };
  if (given === selectionSchema) return { type: 'pages' };
  const schema = given as z.core.$ZodTypes;
  const { def } = schema._zod;
  if (def.type === 'boolean') return { type: 'choice', values: [true, false] };
  if (def.type === 'enum') return { type: 'choice', values: Object.values(def.entries) };
  if (def.type === 'literal') return { type: 'choice', values: def.values as (string | number | boolean)[] };
  if (schema instanceof z.ZodString) return { type: 'text', longest: schema.maxLength ?? 200 };
  if (schema instanceof z.ZodNumber)
    return { type: isLength(schema) ? 'length' : 'number', ...limitsOfNumber(schema) };
  return undefined;
}
