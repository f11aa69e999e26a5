import * as z from 'zod';
import type { PageList } from '../model/page';
import { describeIndexes, resolveSelection, SelectionError } from '../select/selection';
import { ASK_KINDS, askable, type Askable, type Path } from './askable';
import { amissOf, REPORTED, type Amiss } from './amiss';
import { docketSchema, emptyDocket, sourcesNamed, titleFrom, type Docket } from './docket';
import type { Format } from './format';
import { keptNameSchema } from './kept';
import type { Replay } from './replay';
import { stepSchema, type Step } from './steps';
import { bringUp, VersionError } from './versions';
import { lastOf, firstOf } from '../entries';
import { isRecord } from '../unknown';

/** A value that is asked for when a recipe is replayed. */
const askSchema = z.object({
  /** By which it is set, on the command line too. */
  name: z.string().regex(/^[a-z][a-z0-9-]{0,39}$/),
  label: z.string().trim().min(1).max(80),
  kind: z.enum(ASK_KINDS),
  /** Id of the step in which the value is; if missing, it is in what the recipe holds besides steps. */
  step: z.string().optional(),
  /** Where it is in there. */
  path: z
    .array(z.union([z.string(), z.number().int().min(0)]))
    .min(1)
    .max(8),
  /** What it is where nobody says otherwise; without one it must be said. */
  preset: z.union([z.string().max(4000), z.number()]).optional(),
});
export type Ask = z.infer<typeof askSchema>;

const { shape: parts } = docketSchema;
/** What a recipe may hold besides steps. */
const besides = {
  book: parts.book.optional(),
  safe: parts.safe.unwrap().optional(),
  scheme: parts.scheme.optional(),
  outputs: parts.outputs.optional(),
};

/**
 * Steps to be replayed on other jobs, and on whatever is taken in: with the formats that they name and, if wanted, how the
 * book lies, how it goes on sheets, and what goes out. Pages are selected by what was typed, so that it fits any page count.
 */
export const recipeSchema = z.object({
  recipe: z.literal(1),
  name: keptNameSchema,
  /** Counts how often it was saved under its name. */
  version: z.number().int().min(1).default(1),
  about: z.string().max(500).optional(),
  /** In words, what its lengths are in: for who reads the file. */
  lengths: z.string().max(60).optional(),
  steps: parts.steps,
  formats: parts.formats,
  ...besides,
  /** Sheets are proved before they go out. */
  prove: parts.prove,
  asks: z
    .array(askSchema)
    .max(50)
    .refine(
      (asks) => new Set(asks.map(({ name }) => name)).size === asks.length,
      'two values asked for have one name',
    )
    .default([]),
});
export type Recipe = z.infer<typeof recipeSchema>;

export type RecipeErrorCode =
  | 'recipe-newer'
  | 'recipe-unknown-step'
  | 'recipe-invalid'
  | 'value-missing'
  | 'value-wrong'
  | 'value-unknown';
/** Why a recipe cannot be read or replayed. */
export class RecipeError extends Error {
  constructor(
    readonly code: RecipeErrorCode,
    readonly data: Record<string, string | number | Amiss> = {},
  ) {
    super(code);
  }
}

const KINDS: readonly string[] = stepSchema.options.map((option) => option.shape.kind.value);

/** The version of recipes that this program writes, and what brings older ones up to it, as for dockets. */
export const RECIPE_VERSION = 1;
const UPGRADES: readonly ((older: Record<string, unknown>) => Record<string, unknown>)[] = [];

/** A recipe as it was written down, by this version or an older one. Throws RecipeError. */
export function readRecipe(json: unknown): Recipe {
  let upToDate: unknown;
  try {
    upToDate = bringUp(json, { key: 'recipe', now: RECIPE_VERSION, upgrades: UPGRADES });
  } catch (error) {
    if (!(error instanceof VersionError)) throw error;
    throw new RecipeError('recipe-newer', { version: error.version });
  }
  const steps: unknown[] = isRecord(upToDate) && Array.isArray(upToDate.steps) ? upToDate.steps : [];
  for (const [n, step] of steps.entries()) {
    const kind = isRecord(step) ? step.kind : undefined;
    if (typeof kind === 'string' && !KINDS.includes(kind))
      throw new RecipeError('recipe-unknown-step', { step: n + 1, kind: kind.slice(0, 60) });
  }
  const read = recipeSchema.safeParse(upToDate, REPORTED);
  if (!read.success) {
    throw new RecipeError('recipe-invalid', { reason: amissOf(firstOf(read.error.issues)) });
  }
  return read.data;
}

/** Values of a recipe that can be asked for, in a step or besides the steps. */
export const askableIn = (recipe: Recipe, step?: Step): Askable[] =>
  step ? askable(stepSchema, step) : askable(z.object(besides), copied(recipe));

/** The words that may be said where a recipe asks for one of several. */
export function optionsOf(recipe: Recipe, { step, path }: Ask): readonly string[] {
  const there = recipe.steps.find(({ id }) => id === step);
  const key = path.join('/');
  return askableIn(recipe, there).find((each) => each.path.join('/') === key)?.options ?? [];
}

/** What of a docket a recipe is to hold besides steps. */
export interface RecipeParts {
  name: string;
  /** Ids of the steps, which keep their order. */
  steps: readonly string[];
  /** How the book lies, and its safe margin. */
  book: boolean;
  scheme: boolean;
  outputs: boolean;
}

/**
 * A recipe of steps that are on a docket. Where a step picks those very pages that it was pointed at, the recipe has the
 * typed form of that, and asks for it.
 */
export function recipeOf({ docket, after }: Pick<Replay, 'docket' | 'after'>, wants: RecipeParts): Recipe {
  const wanted = new Set(wants.steps);
  const asks: Ask[] = [];
  const steps = docket.steps.flatMap((step, n): Step[] => {
    if (!wanted.has(step.id)) return [];
    const met: PageList = after[n - 1] ?? { pages: [], book: docket.book };
    const { recipe: _, ...own } = step;
    return [
      typed(own, met, (path, preset) => {
        asks.push({
          name: freeName(asks, path.at(-1) === 'pages' ? 'pages' : String(path[0])),
          label: 'Which pages',
          kind: 'pages',
          step: step.id,
          path: [...path],
          ...(preset ? { preset } : {}),
        });
      }),
    ];
  });
  const named = new Set(steps.flatMap((step) => ('format' in step && step.format ? [step.format] : [])));
  return recipeSchema.parse({
    recipe: 1,
    name: wants.name,
    steps,
    formats: docket.formats.filter(({ id }) => named.has(id)),
    ...(wants.book ? { book: docket.book, safe: docket.safe } : {}),
    ...(wants.scheme ? { scheme: docket.scheme } : {}),
    ...(wants.outputs ? { outputs: docket.outputs, prove: !!docket.prove } : {}),
    asks,
  });
}

/** A step whose pages are all selected by typed text; `pointed` hears where they were not. */
function typed(step: Step, list: PageList, pointed: (path: Path, preset: string) => void): Step {
  const walk = (value: unknown, path: Path): unknown => {
    if (Array.isArray(value)) return value.map((each, n) => walk(each, [...path, n]));
    if (value === null || typeof value !== 'object') return value;
    const ids: unknown = 'ids' in value ? value.ids : undefined;
    if (Array.isArray(ids) && Object.keys(value).length === 1) {
      const text = textOf(ids.map(String), list);
      pointed(path, text);
      return text;
    }
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, walk(each, [...path, key])]));
  };
  const all = walk(step, []) as Step & { away?: readonly string[] };
  // Single pages that a line was clicked away from are pages of that job alone.
  if (all.away) delete all.away;
  return all;
}

function textOf(ids: readonly string[], list: PageList): string {
  try {
    return describeIndexes(resolveSelection({ ids: [...ids] }, list), list);
  } catch (error) {
    if (error instanceof SelectionError) return '';
    throw error;
  }
}

/** A name that no other value asked for has. */
export function freeName(asks: readonly Pick<Ask, 'name'>[], wanted: string): string {
  const stem =
    wanted
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^[^a-z]+|-+$/g, '')
      .slice(0, 36) || 'value';
  const taken = new Set(asks.map(({ name }) => name));
  if (!taken.has(stem)) return stem;
  let n = 2;
  while (taken.has(`${stem}-${n}`)) n++;
  return `${stem}-${n}`;
}

/** Values by the names under which they are asked for. */
export const recipeValuesSchema = z.record(z.string().max(40), z.union([z.string().max(4000), z.number()]));
export type RecipeValues = Readonly<z.infer<typeof recipeValuesSchema>>;

type FilledIn = Pick<Recipe, 'steps' | keyof typeof besides>;

/** What a recipe holds, with the values that were said. Throws RecipeError. */
export function filledIn(recipe: Recipe, values: RecipeValues): FilledIn {
  const known = new Set(recipe.asks.map(({ name }) => name));
  for (const name of Object.keys(values))
    if (!known.has(name)) throw new RecipeError('value-unknown', { name });
  const { steps, ...rest } = copied(recipe);
  for (const { name, label, kind, step: id, path, preset } of recipe.asks) {
    const value = values[name] ?? preset;
    if (value === undefined || value === '') throw new RecipeError('value-missing', { name, label });
    const number = kind === 'number' || kind === 'length';
    if (number !== (typeof value === 'number'))
      throw new RecipeError('value-wrong', {
        name,
        label,
        reason: { at: [], why: number ? 'number' : 'words' },
      });
    let at: object | undefined = id === undefined ? rest : steps.find((step) => step.id === id);
    // Only what the recipe itself holds: a path from outside leads to nothing that all objects share.
    const held = (key: string | number) => !!at && Object.hasOwn(at, key);
    for (const key of path.slice(0, -1)) at = held(key) ? (at![key as never] as object) : undefined;
    const last = lastOf(path);
    if (at === null || typeof at !== 'object' || (id === undefined && path.length === 1 && !held(last)))
      throw new RecipeError('recipe-invalid', { reason: { at: [], why: 'nowhere', than: label } });
    Object.defineProperty(at, last, { value, configurable: true, enumerable: true, writable: true });
  }
  const blame = (id: string | undefined) => (at: readonly PropertyKey[]) =>
    recipe.asks.find(
      ({ step, path }) => step === id && path.every((key, n) => n >= at.length || at[n] === key),
    );
  return {
    ...readFilled(z.object(besides), rest, blame(undefined)),
    steps: steps.map((step) => readFilled(stepSchema, step, blame(step.id))),
  };
}

/** A copy that can be written into, of what of a recipe may be asked for. */
function copied({ steps, book, safe, scheme, outputs }: Recipe): FilledIn {
  return JSON.parse(JSON.stringify({ steps, book, safe, scheme, outputs })) as FilledIn;
}

/** What was filled in, read; where it cannot be, the value that is to blame is named. */
function readFilled<T>(
  schema: z.ZodType<T>,
  given: unknown,
  asked: (path: readonly PropertyKey[]) => Ask | undefined,
): T {
  const read = schema.safeParse(given, REPORTED);
  if (read.success) return read.data;
  const issue = firstOf(read.error.issues);
  const { path } = issue;
  const ask = asked(path);
  throw new RecipeError('value-wrong', {
    name: ask?.name ?? '',
    label: ask?.label ?? path.join('.'),
    reason: amissOf(issue, ask?.kind === 'length'),
  });
}

/**
 * The docket with a recipe replayed at its end. Each step says which recipe it came from; it keeps its id where that is free.
 * Throws RecipeError.
 */
export function withRecipe(docket: Docket, recipe: Recipe, values: RecipeValues): Docket {
  const taken = new Set(docket.steps.map(({ id }) => id));
  const { formats, idOf } = withFormats(docket.formats, recipe.formats);
  const filled = filledIn(recipe, values);
  const steps = filled.steps.map((step): Step => {
    const id = freeId(step.id, taken);
    taken.add(id);
    const named = 'format' in step && step.format ? { format: idOf(step.format) } : {};
    return { ...step, ...named, id, recipe: { name: recipe.name, version: recipe.version } };
  });
  return {
    ...docket,
    book: filled.book ?? docket.book,
    safe: filled.safe ?? docket.safe,
    formats,
    steps: [...docket.steps, ...steps],
    scheme: filled.scheme ?? docket.scheme,
    outputs: filled.outputs ?? docket.outputs,
    prove: recipe.prove ?? docket.prove,
  };
}

/** A job that begins with a file and the recipe that it is worked by; sheets are proved if the recipe says so. Throws RecipeError. */
export const docketOfFile = (
  { source, name }: { source: string; name: string },
  recipe: Recipe,
  values: RecipeValues,
): Docket =>
  withRecipe(
    {
      ...emptyDocket(titleFrom(name)),
      prove: false,
      steps: [{ id: 't', kind: 'take-in', source, name, where: { at: 'end' } }],
    },
    recipe,
    values,
  );

function freeId(id: string, taken: ReadonlySet<string>): string {
  if (!taken.has(id)) return id;
  const stem = id.slice(0, 58);
  let n = 2;
  while (taken.has(`${stem}~${n}`)) n++;
  return `${stem}~${n}`;
}

/** A docket's formats with those of a recipe: one that is there already is that one. */
function withFormats(
  own: readonly Format[],
  more: readonly Format[],
): { formats: Format[]; idOf: (id: string) => string } {
  const ids = new Map<string, string>();
  const formats = [...own];
  for (const format of more) {
    const same = ({ id: _, ...one }: Format) => JSON.stringify(one);
    const known = own.find((each) => same(each) === same(format));
    const id = known?.id ?? freeId(format.id, new Set(formats.map((each) => each.id)));
    ids.set(format.id, id);
    if (!known) formats.push({ ...format, id });
  }
  return { formats, idOf: (id) => ids.get(id) ?? id };
}

/** SHA-256 of the files that a recipe brings along: standing pages and graphics. */
export const sourcesOfRecipe = (recipe: Recipe): string[] => sourcesNamed(recipe).map(({ source }) => source);
