import { coverPages, sideOfPart } from '../pages/coverParts';
import type { Cover, CoverPart } from '../model/page';
import type { Page, PageList } from '../model/page';
import { caliperOf } from '../paper/stock';
import { backTurn, OPEN, type Face, type Forme, type Slot } from './forme';
import { gridForme, type Between } from './grid';
import { NO_JOB, type CoverPlan, type PlannedPage, type SheetPlan, type SpineWork } from './plan';
import { planForms } from './press';
import { leavesApart } from './stitched';
import { PLAIN_COVER, SPINE_TEXT, type CoverScheme, type Press } from './scheme';
import type { Signatures } from './settings/signatures';
import { lengthAlong } from './leafStrip';
import { entryAt } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

/** Parts of the outside, from the left as it is seen, of a book bound at the left; from the foot of one bound at the head backwards. */
const OUTSIDE = ['back-flap', 'back', 'spine', 'front', 'front-flap'] as const;
const BEHIND: Partial<Record<CoverPart, CoverPart>> = { front: 'inside-front', back: 'inside-back' };

/** How a cover goes through the press: as the book does, on its own stock. */
export const coverPress = (scheme: Signatures): Press => {
  const { stock, copies } = scheme.cover ?? PLAIN_COVER;
  const { turn, gripper, lay, between, run, marks } = scheme;
  return {
    stock,
    turn,
    marks,
    ...(gripper === undefined ? {} : { gripper }),
    ...(lay ? { lay } : {}),
    ...(between === undefined ? {} : { between }),
    ...(run ? { run } : {}),
    ...(copies ? { copies } : {}),
  };
};

/** How thick a bound block is at its spine: its leaves, the thread between its signatures, and what is added to it. */
export function spineOf(
  { leaves, signatures }: { leaves: number; signatures: number },
  { stock, thread = 0, cover = PLAIN_COVER }: Pick<Signatures, 'stock' | 'thread' | 'cover'>,
  given = 0,
): SpineWork {
  const caliper = caliperOf(stock);
  const { added } = cover;
  const worked =
    caliper === undefined ? undefined : leaves * caliper + Math.max(0, signatures - 1) * thread + added;
  return {
    leaves,
    signatures,
    thread,
    added,
    ...(caliper === undefined ? {} : { caliper }),
    ...(worked === undefined ? {} : { worked }),
    width: cover.spine ?? worked ?? given,
  };
}

/** Plans the cover around a planned book; undefined if the list has none. */
export function planCover(
  list: PageList,
  scheme: Signatures,
  book: SheetPlan,
  job = NO_JOB,
): CoverPlan | undefined {
  const { cover } = list;
  if (!cover || !coverPages(list).length) return undefined;
  const settings = scheme.cover ?? PLAIN_COVER;
  const { spine: bound } = list.book;
  const page = lengthAlong(book.cell, bound);
  const flap = settings.flap ?? 0;
  const along = (part: Page) => lengthAlong(part.trim, bound);
  const given = cover.spine
    ? along(cover.spine)
    : cover.outside
      ? Math.max(0, along(cover.outside) - 2 * (page + flap))
      : 0;
  const spine = spineOf(
    { leaves: leavesIn(book), signatures: book.sheetCount - leavesApart(list) },
    scheme,
    given,
  );
  const wide = (part: (typeof OUTSIDE)[number]) =>
    part === 'spine' ? spine.width : part === 'front' || part === 'back' ? page : flap;
  const there = OUTSIDE.map((part) => ({ part, length: wide(part) })).filter(
    ({ length }) => length > TOLERANCES.place,
  );
  const parts = bound === 'left' ? there : there.reverse();
  const forme = coverForm(parts, list, settings, book);
  const press: Press = {
    ...coverPress(scheme),
    work: forme.slots.some(({ back }) => back) ? 'sheetwise' : 'single-side',
  };
  const pages = forme.slots.flatMap(({ front, back }) =>
    [front, back].flatMap((face) => (face ? [face.planned] : [])),
  );
  const pieceArea = forme.size.width * forme.size.height;
  const plan = planForms({ formes: [forme], pages, cell: forme.size, blanksAdded: 0, job, pieceArea }, press);
  return { plan, spine, parts, size: forme.size };
}

/** The leaves that are bound at the spine; what folds out of them is not. */
const leavesIn = ({ pages }: SheetPlan): number => pages.filter(({ page }) => !page?.panel).length / 2;

/** The book with its cover, where it has one. */
export function withCover(
  book: SheetPlan | undefined,
  list: PageList,
  scheme: Signatures,
  job = NO_JOB,
): SheetPlan | undefined {
  const cover = book && planCover(list, scheme, book, job);
  if (!cover) return book;
  let sheets: SheetPlan['sheets'] | undefined;
  return Object.defineProperties({ cover } as SheetPlan, {
    ...Object.getOwnPropertyDescriptors(book),
    sheets: { enumerable: true, get: () => (sheets ??= [...book.sheets, ...cover.plan.sheets]) },
  });
}

function coverForm(
  parts: CoverPlan['parts'],
  list: PageList,
  settings: CoverScheme,
  { cell, pages }: SheetPlan,
): Forme {
  const { cover = {}, book } = list;
  const across = book.spine !== 'head';
  let position = pages.length;
  const planned = (part: CoverPart): PlannedPage => ({
    position: ++position,
    name: part.replace('-', ' '),
    label: '',
    side: sideOfPart(part, book),
    ...(cover[part] ? { page: cover[part] } : {}),
  });
  const isInside = (part: CoverPart) =>
    part === 'inside' || part === 'inside-front' || part === 'inside-back';
  const face = (part: CoverPart): Face => ({
    planned: planned(part),
    turn: isInside(part) ? backTurn(sideOfPart(part, book)) : 0,
  });
  const joint: Between = { gap: 0, cut: false, folded: true };
  const lengths = parts.map(({ length }) => length);
  const joints = lengths.slice(1).map(() => joint);
  const grid = gridForme({
    columns: across ? lengths : [cell.width],
    rows: across ? [cell.height] : lengths,
    betweenColumns: across ? joints : [],
    betweenRows: across ? [] : joints,
    at: (column, row) => {
      const { part } = entryAt(parts, across ? column : row);
      return { ...facesOf(part, cover, face), centred: true };
    },
    name: 'cover',
  });
  const open = { left: OPEN, right: OPEN, head: OPEN, foot: OPEN };
  const whole = {
    box: { x0: 0, y0: 0, x1: grid.size.width, y1: grid.size.height },
    room: open,
    centred: true,
  } as const;
  const spine = grid.slots[parts.findIndex(({ part }) => part === 'spine')];
  const text = settings.text?.trim() && spine ? [spineText(spine, across, settings, face('spine'))] : [];
  const slots: Slot[] = [
    ...(cover.outside ? [{ ...whole, front: face('outside') }] : []),
    ...(cover.inside ? [{ ...whole, back: face('inside') }] : []),
    ...grid.slots.filter(
      (slot) => (slot.front || slot.back) && !(text.length && slot === spine && isBare(slot)),
    ),
    ...text,
  ];
  return { ...grid, slots };
}

/** Nothing was made for it. */
const isBare = ({ front, back }: Slot): boolean => !front?.planned.page && !back;

/** What is on a part of the outside and behind it, where no whole side stands for it. */
function facesOf(part: CoverPart, cover: Cover, face: (part: CoverPart) => Face) {
  const behind = BEHIND[part];
  return {
    ...(cover.outside ? {} : { front: face(part) }),
    ...(behind && !cover.inside && cover[behind] ? { back: face(behind) } : {}),
  };
}

/** Id of the text on a spine, which is drawn as a page is and is none of any list. */
export const SPINE_WORDS = 'spine text';

/** The text on a spine, in a place of its own over whatever the spine shows. */
function spineText(
  spine: Slot,
  across: boolean,
  { text, textSize, ink, runs }: CoverScheme,
  face: Face,
): Slot {
  const { x0, x1, y0, y1 } = spine.box;
  const [width, height] = across ? [y1 - y0, x1 - x0] : [x1 - x0, y1 - y0];
  const none = { by: 'edge', head: 0, foot: 0, spine: 0, fore: 0 } as const;
  const page: Page = {
    id: SPINE_WORDS,
    trim: { width, height },
    bleed: none,
    words: text!.trim(),
    wordSize: textSize ?? SPINE_TEXT.plain,
    ...(ink ? { wordInk: ink } : {}),
  };
  const { back: _, ...place } = spine;
  return {
    ...place,
    centred: true,
    front: { ...face, planned: { ...face.planned, page }, turn: across ? (runs === 'down' ? 90 : 270) : 0 },
  };
}
