import { formatFigure, formatLength, formatSize, UNIT_SIGN } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { describeIndexes, type Selection } from '../core/pages/selection';
import type { PageList } from '../core/pages/page';
import type { Place } from '../core/pages/place';
import type { Step, StepOf } from '../core/docket/steps';
import { nameSize } from '../core/paper/sizes';

/** What each kind of step is called. */
export const STEP_NAME: Record<Step['kind'], string> = {
  'take-in': 'Take in',
  blank: 'Blank',
  remove: 'Take out',
  move: 'Move',
  trim: 'Size',
  bleed: 'Bleed',
};

/** A step in words: `act` is what it does, `what` to what, `detail` the rest. `before` is the list that the step meets. */
export function sayStep(
  step: Step,
  unit: Unit,
  before: PageList,
): { act: string; what: string; detail: string } {
  const act = STEP_NAME[step.kind];
  switch (step.kind) {
    case 'take-in':
      return {
        act,
        what: step.name,
        detail: [step.take ? `its pages ${step.take}` : '', sayPlace(step.where, before)]
          .filter(Boolean)
          .join(' · '),
      };
    case 'blank':
      return {
        act,
        what: step.count === 1 ? '1 page' : `${step.count} pages`,
        detail: sayPlace(step.where, before),
      };
    case 'remove':
      return { act, what: sayPages(step.pages, before), detail: '' };
    case 'move':
      return { act, what: sayPages(step.pages, before), detail: sayPlace(step.where, before) };
    case 'trim': {
      const known = nameSize(step);
      const size = formatSize(step.width, step.height, unit);
      return {
        act,
        what: sayPages(step.pages, before),
        detail: `${known ? `${known.name}${known.landscape ? ' landscape' : ''} · ` : ''}${size} · content ${CONTENT_WORD[step.content]}`,
      };
    }
    case 'bleed':
      return { act, what: sayPages(step.pages, before), detail: sayBleed(step, unit) };
  }
}

/** What happened to the content, as a step's detail says it. */
const CONTENT_WORD = { hold: 'held', fit: 'fitted', fill: 'filling', stretch: 'stretched' } as const;

/** Pages of a step in words; picked ones by where they are now. */
export function sayPages(selection: Selection, list: PageList): string {
  if (typeof selection === 'string')
    return /^all$/i.test(selection.trim()) ? 'all pages' : `pages ${selection.trim()}`;
  const ids = new Set(selection.ids);
  const indexes = list.pages.flatMap((page, index) => (ids.has(page.id) ? [index] : []));
  if (!indexes.length) return 'pages that are gone';
  return `${indexes.length === 1 ? 'page' : 'pages'} ${describeIndexes(indexes)}`;
}

/** A place in words: `before page 3`. */
export function sayPlace(place: Place, list: PageList): string {
  if (!('pages' in place)) return place.at === 'start' ? 'at the start' : 'at the end';
  const pages = sayPages(place.pages, list);
  return `${place.at} ${pages.replace(/^pages (last|first|\d+)$/, 'page $1')}`;
}

function sayBleed({ head, foot, spine, fore }: StepOf<'bleed'>, unit: Unit): string {
  const figure = (points: number) => formatFigure(points, unit);
  if (head === foot && foot === spine && spine === fore) return `${formatLength(head, unit)} all round`;
  return `head ${figure(head)}, foot ${figure(foot)}, spine ${figure(spine)}, fore edge ${figure(fore)} ${unit === 'pica' ? '' : UNIT_SIGN[unit]}`.trim();
}
