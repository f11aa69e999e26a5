import type * as z from 'zod';
import type { PageList } from '../pages/page';
import type { Surveys } from '../pages/survey';
import type { PatternErrorCode } from '../numbers/pattern';
import type { Format } from './format';

/** What a step may look at besides the list. */
export interface StepContext {
  surveys: Surveys;
  formats: readonly Format[];
}

/** One kind of step: its schema and what it does to a page list. `apply` is pure; it throws StepProblem or SelectionError. */
export interface StepKind<Schema extends z.ZodType> {
  kind: string;
  schema: Schema;
  apply(list: PageList, step: z.infer<Schema>, context: StepContext): PageList;
}

export const defineStep = <Schema extends z.ZodType>(kind: StepKind<Schema>): StepKind<Schema> => kind;

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
