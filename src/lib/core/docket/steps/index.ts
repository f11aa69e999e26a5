import * as z from 'zod';
import type { PageList } from '../../pages/page';
import type { StepContext } from '../stepKind';
import { blank } from './blank';
import { bleed } from './bleed';
import { move } from './move';
import { remove } from './remove';
import { takeIn } from './takeIn';
import { trim } from './trim';

/** Every kind of step; a new kind is one new file and one line here. */
const KINDS = [takeIn, blank, remove, move, trim, bleed] as const;

export const stepSchema = z.discriminatedUnion('kind', [
  takeIn.schema,
  blank.schema,
  remove.schema,
  move.schema,
  trim.schema,
  bleed.schema,
]);
export type Step = z.infer<typeof stepSchema>;
export type StepOf<Kind extends Step['kind']> = Extract<Step, { kind: Kind }>;

/** Applies a step to a list. Throws StepProblem or SelectionError where it cannot. */
export function applyStep(list: PageList, step: Step, context: StepContext): PageList {
  const kind = KINDS.find((known) => known.kind === step.kind)!;
  return (kind.apply as (list: PageList, step: Step, context: StepContext) => PageList)(list, step, context);
}
