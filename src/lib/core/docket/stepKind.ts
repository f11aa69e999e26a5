import type * as z from 'zod';
import type { PageList } from '../model/page';
import type { Selection } from '../model/selection';
import type { Surveys } from '../model/survey';
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
  /** The pages selected; undefined if none are. */
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
  /** The list after the step. Throws StepProblem or SelectionError if it cannot be. */
  apply(list: PageList, step: z.infer<Schema>, context: StepContext): PageList;
  /** A step as its form begins, for the pages selected, else for all or the likeliest; missing where a form does not begin one. */
  fresh?(begun: Beginning): Omit<z.infer<Schema>, 'id'>;
  /** A step of which a job has only one, opened anew for the pages selected. */
  extended?(step: z.infer<Schema>, begun: Pick<Beginning, 'list' | 'indexes'>): z.infer<Schema>;
  /** Whether there is anything that it could do; if missing, wherever there are pages. */
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

/** Why a step cannot apply: each reason with what must be known to say it. Positions are counted from 1. */
export type StepProblems = {
  'source-missing': { name: string };
  'source-page-missing': { name?: string; page: number };
  'into-itself': { position: number };
  'empty-list': Nothing;
  'nothing-left': { position: number };
  'not-measured': { position: number };
  'no-ink': Nothing;
  'no-such-format': Nothing;
  'panel-stays': { panel: string };
  'panel-at-head': Nothing;
  'panel-on-loose': Nothing;
  'too-many-faces': { given: number; room: number };
  'shows-itself': { position: number };
  'no-panels': Nothing;
  'not-facing': { position: number };
  'cover-count': { pages: number; parts: number };
  'cover-twice': { part: string };
  'cover-of-nothing': Nothing;
  'split-outside': { position: number };
  'scans-odd': { scans: number };
  'signature-count': { scans: number };
  'order-repeats': { part: number };
  'order-gaps': { part: number; parts: number };
  'order-outside': { part: number; parts: number };
  'series-overlap': { position: number };
  'series-at-panel': Nothing;
  'no-margins': { position: number };
  'place-taken': { place: string };
  'one-graphic': { count: number };
  'nothing-on-page': { position: number };
  'nothing-under': Nothing;
  'area-empty': Nothing;
  'same-ink': { name: string };
  'no-such-ink': { name: string };
  'no-column': Nothing;
} & Record<PatternErrorCode, { seen: string }>;
type Nothing = Record<never, never>;
export type StepProblemCode = keyof StepProblems;

/** Why a step cannot apply to the list it met. */
export class StepProblem<Code extends StepProblemCode = StepProblemCode> extends Error {
  readonly data: StepProblems[Code];
  constructor(
    readonly code: Code,
    ...[data]: StepProblems[Code] extends Nothing
      ? Nothing extends StepProblems[Code]
        ? []
        : [StepProblems[Code]]
      : [StepProblems[Code]]
  ) {
    super(code);
    this.data = data ?? ({} as StepProblems[Code]);
  }
}
