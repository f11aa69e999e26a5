import type * as z from 'zod';
import type { PageList } from '../../model/page';
import { settleSeries } from '../../numbers/series';
import { settlePanels } from '../../pages/panels';
import { byKind, unionOf, ofAnyKind } from '../../kinds';
import type { Beginning, StepContext, StepKind, StepSchema } from '../stepKind';
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
import { straighten } from './straighten';
import { trim } from './trim';
import { turn } from './turn';
import { uncrop } from './uncrop';

/** Every kind of step: a new one is a file here, one in words/steps, and its line. In the order of the bench's buttons. */
export const STEP_KINDS = [
  takeIn,
  trim,
  bleed,
  crop,
  uncrop,
  turn,
  straighten,
  margins,
  format,
  piece,
  blank,
  copy,
  move,
  remove,
  keep,
  cover,
  panel,
  giveBack,
  split,
  join,
  readingOrder,
  numbers,
  folio,
  running,
  stamp,
  overlay,
  set,
  ink,
] as const;

export const stepSchema = unionOf(STEP_KINDS);
export type Step = z.infer<typeof stepSchema>;
export type StepOf<Kind extends Step['kind']> = Extract<Step, { kind: Kind }>;

/** A step that has no id yet. */
export type StepDraft = Step extends infer Each ? (Each extends Step ? Omit<Each, 'id'> : never) : never;

/** What the records of all kinds have in common, whatever kind a step is of. */
type AnyKind = Omit<
  StepKind<StepSchema>,
  'kind' | 'schema' | 'apply' | 'fresh' | 'extended' | 'sources' | 'looksAtPages'
> & {
  kind: Step['kind'];
  schema: StepSchema;
  apply(list: PageList, step: Step, context: StepContext): PageList;
  fresh?(begun: Beginning): StepDraft;
  extended?(step: Step, begun: Pick<Beginning, 'list' | 'indexes'>): Step;
  sources?(step: Step): { source: string; name: string }[];
  looksAtPages?(step: Step): boolean;
};
const BY_KIND = byKind(STEP_KINDS);
/** The record of a kind of step. */
export const stepKind = (kind: Step['kind']): AnyKind => ofAnyKind(BY_KIND[kind]);

/** Applies a step to a list. Throws StepProblem or SelectionError if it cannot. */
export const applyStep = (list: PageList, step: Step, context: StepContext): PageList =>
  settleSeries(list, settlePanels(stepKind(step.kind).apply(list, step, context)));

/** A step as its form begins. Throws where steps of this kind are begun in another way. */
export function freshStep(kind: Step['kind'], id: string, begun: Beginning): Step {
  const { fresh } = stepKind(kind);
  if (!fresh) throw new Error(`no form begins a step of the kind ${kind}`);
  return { ...fresh(begun), id };
}
