import * as z from 'zod';
import { STEP_KINDS } from '../lib/core/docket/steps';
import { FOLDS } from '../lib/core/fold/patterns';
import { OUTPUTS } from '../lib/core/handover/outputs';
import { isLength } from '../lib/core/measure/lengthSchema';
import { selectionSchema } from '../lib/core/model/selection';
import { placeSchema } from '../lib/core/select/place';
import { MARKS } from '../lib/core/sheets/marks';
import { pressFields } from '../lib/core/sheets/scheme';
import { SCHEMES } from '../lib/core/sheets/schemes';
import { foldWords } from '../lib/words/folds';
import { markWords } from '../lib/words/marks';
import { outputWords } from '../lib/words/outputs';
import { schemeWords } from '../lib/words/schemes';
import { stepWords } from '../lib/words/steps';
import { foundIn } from '../lib/core/entries';

/** Fields that every kind of a family has, said once above its table. */
const SHARED = {
  steps: ['id', 'kind', 'off', 'recipe'],
  schemes: ['kind', ...Object.keys(pressFields)],
  outputs: ['id', 'kind', 'name'],
  folds: ['fold'],
};
/** Deeper than this a value is only named. */
const DEEPEST = 2;

const round = (value: number): number => Math.round(value * 1000) / 1000;
const code = (value: unknown): string => `\`${String(value)}\``;

/** What a value may be, in a few words. */
function holds(given: z.core.$ZodType, depth = 0): string {
  if (given === selectionSchema) return 'pages';
  if (given === placeSchema) return 'a place';
  const schema = given as z.core.$ZodTypes;
  const inner = (each: z.core.$ZodType) => holds(each, depth + 1);
  const { def } = schema._zod;
  switch (def.type) {
    case 'optional':
      return `${holds(def.innerType, depth)}, or left out`;
    case 'literal':
      return def.values.map(code).join(', ');
    case 'enum':
      return Object.values(def.entries).map(code).join(', ');
    case 'boolean':
      return '`true` or `false`';
    case 'number': {
      const { minValue, maxValue, isInt } = schema as z.ZodNumber;
      const kind = isLength(schema) ? 'points' : isInt ? 'a whole number' : 'a number';
      if (minValue === null || maxValue === null) return kind;
      const most = maxValue >= Number.MAX_SAFE_INTEGER ? 'upwards' : `to ${round(maxValue)}`;
      return `${kind}, ${round(minValue)} ${most}`;
    }
    case 'string':
      return 'text';
    case 'array':
      return `a list of ${depth < DEEPEST ? inner(def.element) : 'values'}`;
    case 'object':
      return depth < DEEPEST ? `{${fields(schema as z.ZodObject, [], depth + 1)}}` : 'an object';
    case 'union':
      return depth < DEEPEST ? def.options.map(inner).join('; or ') : 'one of several forms';
    default:
      return def.type;
  }
}

const fields = (schema: z.ZodObject, apart: readonly string[] = [], depth = 0): string =>
  Object.entries(schema.shape)
    .filter(([name]) => !apart.includes(name))
    .map(([name, each]) => `${code(name)}: ${holds(each, depth)}`)
    .join(depth ? ', ' : '<br>');

const table = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  [heads, heads.map(() => '---'), ...rows].map((cells) => `| ${cells.join(' | ')} |`).join('\n');

/** Every kind of step, scheme, fold, mark and output with what it says, as Markdown: drawn from their schemas and words. */
export const kindsMarkdown = (): string => `# Kinds

Written by \`npm run schema\` from the schemas that the program reads by; [docket.md](docket.md) says what each is for. Lengths are points. *Pages* are typed or selected pages, *a place* is one among them.

## Steps
Each has \`id\` and \`kind\`, and where wanted \`off\`.

${table(
  ['kind', 'called', 'key', 'says besides'],
  STEP_KINDS.map(({ kind, schema, key }) => [
    code(kind),
    stepWords(kind).name,
    key ? code(key) : '',
    fields(schema, SHARED.steps),
  ]),
)}

## Schemes
Those that go through a press also say ${Object.keys(pressFields).map(code).join(', ')}.

${table(
  ['kind', 'called', 'says besides'],
  SCHEMES.map(({ kind, schema }) => [code(kind), schemeWords(kind).name, fields(schema, SHARED.schemes)]),
)}

## Folds of a leaflet

${table(
  ['fold', 'called', 'says besides'],
  FOLDS.map(({ kind, schema }) => [code(kind), foldWords(kind).name, fields(schema, SHARED.folds)]),
)}

## Printer’s marks

${table(
  ['mark', 'called', 'holds'],
  MARKS.map(({ kind, setting }) => [code(kind), markWords(kind).name, holds(setting)]),
)}

## Outputs
Each has \`kind\`, and where wanted \`id\` and \`name\`, the pattern of the names of its files.

${table(
  ['kind', 'called', 'ends in', 'says besides'],
  OUTPUTS.map(({ kind, schema }) => [
    code(kind),
    outputWords(kind).name,
    endings(kind),
    fields(schema, SHARED.outputs),
  ]),
)}
`;

/** How files of a kind of output end, whatever its settings. */
function endings(kind: (typeof OUTPUTS)[number]['kind']): string {
  const output = foundIn(OUTPUTS, (each) => each.kind === kind);
  const as = (output.schema.shape as { as?: z.ZodEnum }).as;
  const ends = output.extension as (settings: object) => string;
  return [...new Set(as ? as.options.map((each) => ends({ as: each })) : [ends({})])].map(code).join(', ');
}
