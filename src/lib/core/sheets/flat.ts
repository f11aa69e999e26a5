import { heightOf, widthOf, type Size } from '../measure/box';
import type { PageList, Spine } from '../model/page';
import { panelsBy } from '../pages/panels';
import { commonestSize } from '../pages/sizes';
import { backTurn, movedForm, turnedForm, type Face, type Forme, type Slot } from './forme';
import { gang, type Gang } from './gang';
import { gridForme, type Between } from './grid';
import {
  foldOutForm,
  lengthAlong,
  panelParts,
  plannedPages,
  plannedPanels,
  type StripPart,
} from './leafStrip';
import { isSideways, layCopies, planForms, printedBox, roundBleed, sheetsLaid, type ToPrint } from './press';
import { NO_JOB, type PlannedPage, type SheetPlan } from './plan';
import type { Flat } from './settings/flat';
import { entryAt } from '../entries';

/** One flat thing: what is on its front and, where its pages lie back to back, on its back; with what folds out of it, from its spine outwards. */
export interface Piece {
  front: PlannedPage;
  back?: PlannedPage;
  panels: readonly Required<StripPart>[];
  size: Size;
}

/** The pages as pieces: leaves where pages face each other, else each by itself. */
export function flatPieces(list: PageList): Piece[] {
  const { facing, spine } = list.book;
  const pages = plannedPages(list);
  const step = facing ? 2 : 1;
  const planned = plannedPanels(list, pages.length);
  const hanging = panelsBy(list, ({ on }) => Math.floor(on / step));
  return Array.from({ length: Math.ceil(pages.length / step) }, (_, n): Piece => {
    const [front, back] = [entryAt(pages, n * step), step === 2 ? pages[n * step + 1] : undefined];
    const panels = panelParts(hanging.get(n) ?? [], planned, spine);
    const { width, height } = front.page!.trim;
    const more = panels.reduce((sum, { length }) => sum + length, 0);
    const size = spine === 'head' ? { width, height: height + more } : { width: width + more, height };
    return { front, size, panels, ...(back ? { back } : {}) };
  });
}

const faces = ({ front, back }: Piece): { front: Face; back?: Face; centred: true } => ({
  front: { planned: front, turn: 0 },
  ...(back ? { back: { planned: back, turn: backTurn(back.side) } } : {}),
  centred: true,
});

/** A forme of one piece. */
export function pieceForm(piece: Piece, spine: Spine): Forme {
  const { front, back, panels, size } = piece;
  if (panels.length) {
    const leaf = { front, length: lengthAlong(front.page!.trim, spine), ...(back ? { back } : {}) };
    return foldOutForm([leaf, ...panels], spine, `fold-out of ${front.name}`);
  }
  return gridForme({
    columns: [size.width],
    rows: [size.height],
    betweenColumns: [],
    betweenRows: [],
    at: () => faces(piece),
  });
}

/**
 * Plans flat work: pieces side by side, to be cut apart. Where nothing is said of it, pieces of which none has a back are
 * printed on one side. Undefined for an empty list.
 */
export function planFlat(list: PageList, given: Flat, job = NO_JOB): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const pieces = flatPieces(list);
  const scheme: Flat =
    given.work || pieces.some(({ back }) => back) ? given : { ...given, work: 'single-side' };
  const { spine } = list.book;
  const pages = plannedPages(list);
  const said = { pages, cell, blanksAdded: 0, job };
  if (scheme.arrange === 'repeat')
    return planForms({ ...said, formes: pieces.map((piece) => pieceForm(piece, spine)) }, scheme);
  if (scheme.arrange === 'gang') return planGang(pieces, said, scheme, spine);
  // What folds out is longer than a cell: it has sheets of its own.
  const plain = pieces.filter(({ panels }) => !panels.length);
  const strips = pieces.filter(({ panels }) => panels.length).map((piece) => pieceForm(piece, spine));
  const formes = plain.map((piece) => pieceForm(piece, spine));
  const { copies: whole, sheet: laid } = layCopies(cell, scheme, roundBleed(formes, scheme));
  const halves = halvesOf(scheme);
  const onSheet = { across: whole.across / halves.across, up: whole.up / halves.up };
  // The whole grid is turned on the sheet.
  const copies = isSideways(scheme) ? { across: onSheet.up, up: onSheet.across } : onSheet;
  const each = copies.across * copies.up;
  const sheets = Math.ceil(plain.length / each);
  const order = cellOrder(copies, scheme);
  const between: Between = { gap: scheme.between ?? 0, cut: true, folded: false };
  const filled = Array.from({ length: sheets }, (_, sheet): Forme => {
    const at = (column: number, row: number) => {
      const n = order.indexOf(row * copies.across + column);
      // A pile goes on where the one before it ends.
      const piece = plain[scheme.arrange === 'stack' ? n * sheets + sheet : sheet * each + n];
      return piece && faces(piece);
    };
    const grid = {
      columns: Array<number>(copies.across).fill(cell.width),
      rows: Array<number>(copies.up).fill(cell.height),
      betweenColumns: Array<Between>(copies.across - 1).fill(between),
      betweenRows: Array<Between>(copies.up - 1).fill(between),
    };
    const all = gridForme({ ...grid, at: () => ({}) });
    const pieces = all.slots.map(({ box }, n) => ({ box, turn: 0 as const, of: order.indexOf(n) }));
    return { ...gridForme({ ...grid, at }), pieces };
  });
  return planForms(
    { ...said, formes: [...filled, ...strips], piecesPerForme: each, grid: whole, sheet: laid },
    { ...scheme, copies: halves },
  );
}

/** One plate that prints both sides carries the fronts on one half, their backs on the other. */
const halvesOf = ({ work }: Flat): { across: number; up: number } => ({
  across: work === 'work-and-turn' ? 2 : 1,
  up: work === 'work-and-tumble' ? 2 : 1,
});

/** Pieces ganged by the quantities wanted: one sheet that is printed as often as the scarcest of them needs. */
function planGang(
  pieces: readonly Piece[],
  said: Omit<ToPrint, 'formes'>,
  scheme: Flat,
  spine: Spine,
): SheetPlan {
  const formes = pieces.map((piece) => pieceForm(piece, spine));
  const gap = scheme.between ?? 0;
  const wanted = pieces.map(({ front, size }) => ({ size, quantity: front.page!.piece?.quantity ?? 1 }));
  const halves = halvesOf(scheme);
  const beside = roundBleed(formes, scheme);
  const [lying, standing] = sheetsLaid(scheme);
  // Turned work takes up the sheet as it would unturned, turned.
  const [found] = (isSideways(scheme) ? [standing, lying] : [lying, standing])
    .flatMap((sheet) => {
      const printed = printedBox(sheet, scheme);
      const room = {
        width: (widthOf(printed) - 2 * beside.width - (halves.across - 1) * gap) / halves.across,
        height: (heightOf(printed) - 2 * beside.height - (halves.up - 1) * gap) / halves.up,
      };
      const tried = gang(wanted, isSideways(scheme) ? { width: room.height, height: room.width } : room, gap);
      return tried ? [{ ...tried, sheet }] : [];
    })
    .sort((a, b) => a.sheets - b.sheets);
  // Where the pieces do not fit together, each has sheets of its own.
  if (!found) {
    const plan = planForms({ ...said, formes }, { ...scheme, copies: 'most' });
    return Object.assign(plan, { apart: wanted.map(({ quantity }) => quantity) });
  }
  const forme = gangedForme(found, formes, gap);
  const plan = planForms(
    { ...said, formes: [forme], piecesPerForme: found.placed.length, sheet: found.sheet },
    { ...scheme, copies: halves },
  );
  // Both halves of a plate that prints both sides become pieces.
  const sheets = Math.ceil(found.sheets / (halves.across * halves.up));
  return { ...plan, sheets: plan.sheets, gang: { each: found.each, sheets } };
}

/** Pieces as they were ganged, as one forme. */
function gangedForme(found: Gang, formes: readonly Forme[], gap: number): Forme {
  const half = gap / 2;
  const ganged = found.placed.map(({ piece, x, y, turned }) =>
    movedForm(turned ? turnedForm(entryAt(formes, piece)) : entryAt(formes, piece), x, y),
  );
  return {
    size: found.block,
    slots: ganged.flatMap(({ slots }) =>
      slots.map((slot): Slot => ({
        ...slot,
        room: {
          left: Math.min(slot.room.left, half),
          right: Math.min(slot.room.right, half),
          head: Math.min(slot.room.head, half),
          foot: Math.min(slot.room.foot, half),
        },
      })),
    ),
    folds: ganged.flatMap(({ folds }) => folds),
    foldings: [...new Set(found.placed.map(({ piece }) => piece))].flatMap((piece) =>
      (entryAt(formes, piece).foldings ?? []).map((folding) => ({ ...folding, piece })),
    ),
    pieces: found.placed.map(({ piece, x, y, turned }) => {
      const { width, height } = entryAt(formes, piece).size;
      return {
        box: { x0: x, y0: y, x1: x + (turned ? height : width), y1: y + (turned ? width : height) },
        turn: turned ? 90 : 0,
        of: piece,
      };
    }),
  };
}

/** The cells of a grid (row × columns + column, rows from the foot) in the order in which they are filled. */
export function cellOrder(
  { across, up }: { across: number; up: number },
  { goes, start }: Pick<Flat, 'goes' | 'start'>,
): number[] {
  const fromHead = start.startsWith('head');
  const fromLeft = start.endsWith('left');
  return Array.from({ length: across * up }, (_, n) => {
    const [line, step] =
      goes === 'down' ? [n % up, Math.floor(n / up)] : [Math.floor(n / across), n % across];
    const back = goes === 'snake' && line % 2 === 1;
    const column = fromLeft !== back ? step : across - 1 - step;
    return (fromHead ? up - 1 - line : line) * across + column;
  });
}
