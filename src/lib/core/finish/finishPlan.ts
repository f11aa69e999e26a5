import { caliperOf } from '../paper/stock';
import { coverPress } from '../sheets/coverSheet';
import type { SheetPlan } from '../sheets/plan';
import { sheetsOfKind, type SheetsOfKind } from '../sheets/run';
import type { Press } from '../sheets/scheme';
import { schemeKind } from '../sheets/schemes';
import type { SchemeKind, SchemeSchema } from '../sheets/schemes/schemeKind';
import { doneAlike } from './doneAlike';
import { finishBook } from './finishBook';
import { finishCut } from './finishCut';
import { finishFolded } from './finishFolded';
import { finishLoose } from './finishLoose';
import { FINISH_VERSION, type FinishPlan, type OperationOf } from './operations';
import type { Finish, ToFinish } from './toFinish';

const FINISHES: Record<SchemeKind<SchemeSchema>['makes'], Finish> = {
  book: finishBook,
  folded: finishFolded,
  cut: finishCut,
  nothing: finishLoose,
};

/** What is done to the sheets of a job, in order, from the press to what comes out. */
export function finishPlanOf(job: ToFinish, title: string): FinishPlan {
  const { operations, reads } = FINISHES[schemeKind(job.scheme.kind).makes](job);
  return {
    version: FINISH_VERSION,
    title,
    made: { reads, spine: job.list.book.spine },
    operations: [...printed(job), ...operations],
  };
}

/** The sheets as they come from the press; those that are printed alike once. */
function printed({ plan, scheme }: ToFinish): OperationOf<'print'>[] {
  const press = 'stock' in scheme ? scheme : undefined;
  const body = Array.from({ length: plan.sheetCount }, (_, n) =>
    printOf(plan, n, n + 1, press, press && sheetsOfKind(plan, n, press)),
  );
  const { cover } = plan;
  if (!cover || scheme.kind !== 'signatures') return doneAlike(body);
  const own = coverPress(scheme);
  const number = plan.sheetCount + 1;
  return [...doneAlike(body), printOf(cover.plan, 0, number, own, sheetsOfKind(cover.plan, 0, own))];
}

function printOf(
  plan: SheetPlan,
  index: number,
  number: number,
  press: Press | undefined,
  run: SheetsOfKind | undefined,
): OperationOf<'print'> {
  const { grammage, grain } = press?.stock ?? {};
  const caliper = press && caliperOf(press.stock);
  return {
    kind: 'print',
    sheets: [number],
    paper: {
      ...plan.sheetSize(index),
      ...(grammage === undefined ? {} : { grammage }),
      ...(caliper === undefined ? {} : { caliper }),
      ...(grain ? { grain } : {}),
    },
    sides: plan.work === 'single-side' ? 1 : 2,
    work: plan.work,
    turns: plan.turnAxis,
    ...(press?.gripper ? { gripper: press.gripper } : {}),
    ...(run ? { each: { net: run.net, overs: run.overs, total: run.sheets } } : {}),
  };
}
