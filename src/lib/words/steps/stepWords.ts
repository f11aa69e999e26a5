import { spoken, t } from '../language';
import type { Format } from '../../core/docket/format';
import type { Step, StepOf } from '../../core/docket/steps';
import type { Graphic } from '../../core/docket/steps/graphic';
import type { Unit } from '../../core/measure/unit';
import type { PageList } from '../../core/model/page';
import type { Selection } from '../../core/model/selection';
import type { FieldWords } from '../fieldWords';
import { sayPages } from '../pages';

/** Groups of buttons, in their order. */
export const ACT_GROUPS = spoken({ shape: 'Size and shape', order: 'Order', book: 'The book' } as const);
export type ActGroup = keyof typeof ACT_GROUPS;

/** What a step is said with: the unit of the job, the list that the step meets, and the formats of the docket. */
export interface Saying {
  unit: Unit;
  before: PageList;
  formats: readonly Format[];
}

/** The words for one kind of step. */
export interface StepWords<Kind extends Step['kind']> {
  /** What it is called on the docket, and on its button unless that says more. */
  name: string;
  button?: string;
  /** Among which buttons of its stage it stands. */
  group?: ActGroup;
  /** What its form is headed, where that is more than its name. */
  title?: string;
  /** What its key does, in the list of keys; missing where it has none. */
  does?: string;
  /** A step in words: `act` where it is called otherwise than its kind, `what` it is done to, and the rest. */
  say(step: StepOf<Kind>, saying: Saying): { act?: string; what: string; detail: string };
  /** A sentence below its fields. */
  hint?: string;
  /** What the fields are called that are drawn from the schema; with the words for what can be chosen. */
  fields?: { [Name in keyof StepOf<Kind>]?: FieldWords };
}

/** The parts of a detail that are there, with dots between. */
export const listed = (...parts: (string | number | false | undefined)[]): string =>
  parts.filter(Boolean).join(' · ');

/** What is laid on which pages. */
export const sayLaid = (graphic: Graphic, pages: Selection, list: PageList): string =>
  t`${'page' in graphic ? `${graphic.area ? t`part of ` : ''}${sayPages(graphic.page, list)}` : `“${graphic.name}”`} on ${sayPages(pages, list)}`;
