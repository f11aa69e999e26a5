import * as z from 'zod';
import { isLength } from '../measure/lengthSchema';
import { selectionSchema } from '../model/selection';
import { isRecord } from '../unknown';

/** Where a value lies: keys, and places in lists from 0. */
export type Path = readonly (string | number)[];
/** What a value that is asked for is: pages as they are typed, a length in points, a number, words, or one of several words. */
export const ASK_KINDS = ['pages', 'length', 'number', 'text', 'choice'] as const;
export type AskKind = (typeof ASK_KINDS)[number];

/** A value that can be asked for, and what it is as long as nobody says otherwise. */
export interface Askable {
  path: Path;
  kind: AskKind;
  preset: string | number;
  /** The words to choose from. */
  options?: readonly string[];
}

/** Names of other things, and what holds for the pages of one job alone. */
const NOT_ASKED: ReadonlySet<string> = new Set([
  'id',
  'recipe',
  'source',
  'format',
  'away',
  'byHand',
  'turned',
]);
/** Longer lists are no settings. */
const MOST_LISTED = 16;

type Schema = z.core.$ZodTypes;

/** The values in what was read by a schema that can be asked for, in the schema's order. */
export function askable(schema: z.core.$ZodType, value: unknown, path: Path = []): Askable[] {
  if (value === undefined || value === null) return [];
  if (schema === selectionSchema)
    return typeof value === 'string' ? [{ path, kind: 'pages', preset: value }] : [];
  const { def } = (schema as Schema)._zod;
  const at = (inner: z.core.$ZodType) => askable(inner, value, path);
  switch (def.type) {
    case 'optional':
    case 'default':
      return at(def.innerType);
    case 'union': {
      const fits = def.options.find((option) => z.safeParse(option, value).success);
      return fits ? at(fits) : [];
    }
    case 'object': {
      const fields = isRecord(value) ? value : {};
      return Object.entries(def.shape).flatMap(([key, inner]) =>
        NOT_ASKED.has(key) ? [] : askable(inner, fields[key], [...path, key]),
      );
    }
    case 'array': {
      const list: readonly unknown[] = Array.isArray(value) ? value : [];
      return list.length > MOST_LISTED
        ? []
        : list.flatMap((each, n) => askable(def.element, each, [...path, n]));
    }
    case 'number':
      return [{ path, kind: isLength(schema) ? 'length' : 'number', preset: Number(value) }];
    case 'string':
      return [{ path, kind: 'text', preset: String(value) }];
    case 'enum':
      return [
        { path, kind: 'choice', preset: String(value), options: Object.values(def.entries).map(String) },
      ];
    default:
      return [];
  }
}
