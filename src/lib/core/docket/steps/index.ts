import * as z from 'zod';
import type { PageList } from '../../pages/page';
import { settleSeries } from '../../numbers/series';
import { settlePanels } from '../../pages/panels';
import type { StepContext } from '../stepKind';
import { blank } from './blank';
import { bleed } from './bleed';
import { copy } from './copy';
import { cover } from './cover';
import { crop } from './crop';
import { format } from './format';
import { margins } from './margins';
import { move } from './move';
import { piece } from './piece';
import { remove } from './remove';
import { takeIn } from './takeIn';
import { panel } from './panel';
import { giveBack } from './giveBack';
import { keep } from './keep';
import { split } from './split';
import { join } from './join';
import { readingOrder } from './readingOrder';
import { numbers } from './numbers';
import { folio } from './folio';
import { running } from './running';
import { set } from './set';
import { stamp } from './stamp';
import { overlay } from './overlay';
import { ink } from './ink';
import { trim } from './trim';
import { turn } from './turn';
import { uncrop } from './uncrop';

/** Every kind of step; a new kind is one new file and one line here and in the schema below. */
const KINDS = [
  takeIn,
  blank,
  copy,
  remove,
  move,
  trim,
  bleed,
  crop,
  uncrop,
  turn,
  margins,
  format,
  piece,
  panel,
  giveBack,
  keep,
  cover,
  split,
  join,
  readingOrder,
  numbers,
  folio,
  running,
  set,
  stamp,
  overlay,
  ink,
] as const;

export const stepSchema = z.discriminatedUnion('kind', [
  takeIn.schema,
  blank.schema,
  copy.schema,
  remove.schema,
  move.schema,
  trim.schema,
  bleed.schema,
  crop.schema,
  uncrop.schema,
  turn.schema,
  margins.schema,
  format.schema,
  piece.schema,
  panel.schema,
  giveBack.schema,
  keep.schema,
  cover.schema,
  split.schema,
  join.schema,
  readingOrder.schema,
  numbers.schema,
  folio.schema,
  running.schema,
  set.schema,
  stamp.schema,
  overlay.schema,
  ink.schema,
]);
export type Step = z.infer<typeof stepSchema>;
export type StepOf<Kind extends Step['kind']> = Extract<Step, { kind: Kind }>;

/** Applies a step to a list. Throws StepProblem or SelectionError where it cannot. */
export function applyStep(list: PageList, step: Step, context: StepContext): PageList {
  const kind = KINDS.find((known) => known.kind === step.kind)!;
  const apply = kind.apply as (list: PageList, step: Step, context: StepContext) => PageList;
  return settleSeries(list, settlePanels(apply(list, step, context)));
}
