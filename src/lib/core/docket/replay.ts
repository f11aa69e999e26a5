import { finishList } from '../numbers/finish';
import { SelectionError } from '../select/selection';
import type { PageList } from '../model/page';
import type { Surveys } from '../model/survey';
import type { Docket } from './docket';
import { StepProblem } from './stepKind';
import { applyStep, type Step } from './steps';
import { entryAt } from '../entries';

/** A step that could not apply; the list passes it unchanged. */
export interface FailedStep {
  step: Step;
  problem: StepProblem | SelectionError;
}

/** The docket carried out: the list after each step (`after[0]` is after the first), and at the end, with what its lines say. */
export interface Replay {
  docket: Docket;
  surveys: Surveys;
  after: readonly PageList[];
  list: PageList;
  failed: readonly FailedStep[];
}

/**
 * Carries out a docket. Where `before` is an earlier replay with the same book and surveys, the steps that both
 * start with are not carried out again.
 */
export function replay(docket: Docket, surveys: Surveys, before?: Replay): Replay {
  const known =
    before &&
    before.surveys === surveys &&
    sameJson(before.docket.book, docket.book) &&
    sameJson(before.docket.formats, docket.formats)
      ? before
      : undefined;
  const after: PageList[] = [];
  const failed: FailedStep[] = [];
  let list: PageList = { pages: [], book: docket.book };
  let same = known !== undefined;
  for (const [index, step] of docket.steps.entries()) {
    same = same && sameJson(known!.docket.steps[index], step);
    if (same) {
      list = entryAt(known!.after, index);
      failed.push(...known!.failed.filter((failure) => failure.step.id === step.id));
    } else if (!step.off) {
      try {
        list = applyStep(list, step, { surveys, formats: docket.formats });
      } catch (error) {
        if (!(error instanceof StepProblem || error instanceof SelectionError)) throw error;
        failed.push({ step, problem: error });
      }
    }
    after.push(list);
  }
  const bare = before?.after.at(-1);
  const earlier = bare && { bare, done: before!.list };
  return { docket, surveys, after, list: finishList(list, docket, earlier), failed };
}

const sameJson = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
