import * as z from 'zod';
import { distance, pageLength } from '../../measure/lengthSchema';
import { leafOf } from '../../pages/leaves';
import { sideAt } from '../../pages/page';
import type { Page, PageList } from '../../model/page';
import { foldedOver, foldInWidth, LEAST_NARROWER, FOLD_IN } from '../../pages/panels';
import { resizePage } from '../../pages/resize';
import { resolveSelection } from '../../select/selection';
import { selectionSchema } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { pagesOnly, stepBase } from './base';
import { entryAt } from '../../entries';
import { TOLERANCES } from '../../measure/tolerances';

/** Beyond any fold-out that is made. */
const MOST_PANELS = 6;

/**
 * Hangs fold-out panels on the fore edge of leaves, each outside those that are there. A panel is always two pages, front
 * and back: pages that are already in the list, or blanks. No page of the list moves for it, but for those that it shows.
 */
export const panel = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('panel'),
    /** Any page of each leaf. */
    pages: selectionSchema,
    count: z.number().int().min(1).max(MOST_PANELS),
    /** Pages that become the faces, front and back in turn; where they end, faces are blank. */
    show: selectionSchema.optional(),
    /** The width of each; if missing, that of what it folds over less the allowance. */
    width: pageLength.optional(),
    allowance: distance,
    /** Over which face of its leaf each folds in. */
    folds: z.enum(['front', 'back']),
  }),
)({
  kind: 'panel',
  on: 'pages',
  key: 'l',
  button: true,
  fresh: ({ chosen = 'last' }) => ({
    kind: 'panel',
    pages: chosen,
    count: 1,
    allowance: FOLD_IN,
    folds: 'back',
  }),
  apply(list, step) {
    if (list.book.spine === 'head') throw new StepProblem('panel-at-head');
    if (!list.book.facing) throw new StepProblem('panel-on-loose');
    const shown = step.show ? pagesOnly(resolveSelection(step.show, list), list) : [];
    const anchors = anchorsOf(resolveSelection(step.pages, list), list);
    const faces = shown.map((index) => entryAt(list.pages, index));
    const room = 2 * step.count * anchors.length;
    if (faces.length > room) throw new StepProblem('too-many-faces', { given: faces.length, room });
    const leaves = new Set(anchors.map((anchor) => leafOf(list.pages.indexOf(anchor), list.book).leaf));
    const own = shown.find((index) => leaves.has(leafOf(index, list.book).leaf));
    if (own !== undefined) throw new StepProblem('shows-itself', { position: own + 1 });
    const panels = [...(list.panels ?? [])];
    let made = 0;
    for (const anchor of anchors) {
      let over = foldedOver(list.pages.indexOf(anchor), list).width;
      for (let n = 0; n < step.count; n++) {
        const id = `${step.id}:${++made}`;
        const worked = Math.max(1, foldInWidth(over, step.allowance));
        const front = faceOf('front', faces[2 * made - 2]);
        const back = faceOf('back', faces[2 * made - 1]);
        panels.push(front, back);
        over = Math.max(front.trim.width, back.trim.width);
        function faceOf(face: 'front' | 'back', shows: Page | undefined): Page {
          const hangs = { id, on: anchor.id, face, folds: step.folds } as const;
          if (!shows)
            return {
              ...blankLike(anchor),
              id: `${id}${face[0]}`,
              trim: { width: step.width ?? worked, height: anchor.trim.height },
              panel: hangs,
            };
          const width =
            step.width ??
            (shows.trim.width <= over - LEAST_NARROWER + TOLERANCES.place ? shows.trim.width : worked);
          const side = sideAt(list.pages.indexOf(anchor) + (face === 'front' ? 0 : 1), list);
          const sized = resizePage(
            shows,
            { width, height: anchor.trim.height },
            { content: 'hold', fixed: { x: 'spine', y: 'head' } },
            side,
          );
          return { ...sized, panel: hangs };
        }
      }
    }
    const gone = new Set(faces.map(({ id }) => id));
    return { ...list, pages: list.pages.filter(({ id }) => !gone.has(id)), panels };
  },
});

/** The page by which each selected leaf is held: its front where that is there. */
function anchorsOf(selected: readonly number[], list: PageList): Page[] {
  const held = new Map<number, Page>();
  for (const index of pagesOnly(selected, list)) {
    const { leaf, face } = leafOf(index, list.book);
    const front = face === 'back' && index > 0 ? index - 1 : index;
    held.set(leaf, entryAt(list.pages, front));
  }
  return [...held.values()];
}

const blankLike = ({ bleed, piece }: Page): Omit<Page, 'id' | 'trim'> => ({
  bleed,
  ...(piece ? { piece } : {}),
});
