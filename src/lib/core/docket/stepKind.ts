import type * as z from 'zod';
import type { PageList } from '../pages/page';
import type { Selection } from '../pages/selection';
import type { Surveys } from '../pages/survey';
import type { PatternErrorCode } from '../numbers/pattern';
import type { Format } from './format';

/** What a step may look at besides the list. */
export interface StepContext {
  surveys: Surveys;
  formats: readonly Format[];
}

/** What a new step is begun with. */
export interface Beginning extends StepContext {
  /** The list that the step will meet. */
  list: PageList;
  /** The pages selected; undefined where none are. */
  chosen: Selection | undefined;
  /** Where they are among the faces of the list, from 0. */
  indexes: readonly number[];
  /** The safe margin of the job, in points. */
  safe: number;
}

/** Every step has at least these. */
export type StepSchema = z.ZodObject<{ id: z.ZodString; kind: z.ZodLiteral<string> }>;

/** One kind of step: its schema, what it does to a page list, and how one is begun. All is pure. */
export interface StepKind<Schema extends StepSchema> {
  kind: z.infer<Schema>['kind'];
  schema: Schema;
  /** On which stage it is set up. */
  on: 'pages' | 'numbers';
  /** The key that begins one on the bench, as KeyboardEvent.key has it. */
  key?: string;
  /** Whether its stage offers it as a button: not what is begun from a list, or where files are dropped. */
  button: boolean;
  /** At most one of its kind is wanted in a job: beginning another one changes the last. */
  single?: true;
  /** The list after the step. Throws StepProblem or SelectionError where it cannot be. */
  apply(list: PageList, step: z.infer<Schema>, context: StepContext): PageList;
  /** A step as its form begins, for the pages selected, else for all or the likeliest; missing where a form does not begin one. */
  fresh?(begun: Beginning): Omit<z.infer<Schema>, 'id'>;
  /** Whether there is anything that it could do; where missing, wherever there are pages. */
  possible?(begun: Pick<Beginning, 'list' | 'chosen' | 'indexes'>): boolean;
  /** The files that a step names: what goes with the docket to whoever carries it out. */
  sources?(step: z.infer<Schema>): { source: string; name: string }[];
  /** Whether a step depends on what is drawn on pages, which must then be measured before. */
  looksAtPages?(step: z.infer<Schema>): boolean;
}

/** Puts a schema and the rest of its record together. In two calls, so that TypeScript knows the schema when it reads the rest. */
export const defineStep =
  <Schema extends StepSchema>(schema: Schema) =>
  (rest: Omit<StepKind<Schema>, 'schema'>): StepKind<Schema> => ({ ...rest, schema });

export type StepProblemCode =
  | 'source-missing'
  | 'source-page-missing'
  | 'into-itself'
  | 'empty-list'
  | 'nothing-left'
  | 'not-measured'
  | 'no-ink'
  | 'no-such-format'
  | 'no-column'
  | 'panel-stays'
  | 'panel-at-head'
  | 'panel-on-loose'
  | 'too-many-faces'
  | 'shows-itself'
  | 'no-panels'
  | 'not-facing'
  | 'cover-count'
  | 'cover-twice'
  | 'cover-of-nothing'
  | 'split-outside'
  | 'scans-odd'
  | 'order-repeats'
  | 'order-gaps'
  | 'order-outside'
  | 'signature-count'
  | 'series-overlap'
  | 'series-at-panel'
  | 'no-margins'
  | 'place-taken'
  | 'one-graphic'
  | 'nothing-on-page'
  | 'nothing-under'
  | 'area-empty'
  | 'same-ink'
  | 'no-such-ink'
  | PatternErrorCode;

/** Why a step cannot apply to the list it met. */
export class StepProblem extends Error {
  constructor(
    readonly code: StepProblemCode,
    readonly data: Record<string, string | number> = {},
  ) {
    super(code);
  }
}
