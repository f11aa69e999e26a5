import type { FinishPlan } from '../operations';
import type { Finished } from './finished';
import { Line } from './line';

/**
 * A finishing line: does with the printed sheets what the plan says, one operation after another, and opens what comes out as a
 * reader would. It is told nothing of what is printed where; each page that it gives says where on paper it lies. Throws an
 * Error if the plan asks for paper that is not there.
 */
export function runLine(plan: FinishPlan): Finished[] {
  const line = new Line(plan);
  for (const operation of plan.operations) line.carryOut(operation);
  return line.finished();
}
