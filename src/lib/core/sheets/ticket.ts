import type { Box, Size } from '../measure/box';
import { applyToBox, compose, type Matrix } from '../measure/matrix';
import { mm } from '../measure/unit';
import { faceFor, textWidth } from '../numbers/faceMetrics';
import type { Setting, Weight } from '../model/faces';
import { BLACK } from '../ink/colour';
import { markLine, type Item } from '../model/surface';
import type { Cell, Sheet, SheetPlan, SheetSide } from './plan';

/** What a ticket says: a heading, and lines of it that may be long. */
export interface TicketPart {
  heading: string;
  lines: readonly string[];
}
export interface Ticket {
  title: string;
  /** Under the title. */
  under: string;
  parts: readonly TicketPart[];
  /** What is said if not all lines have room. */
  more: (count: number) => string;
  /** What the pictures of the first sheet are called. */
  sides: Readonly<Record<'front' | 'back', string>>;
}

const PAPER: Size = { width: mm(210), height: mm(297) };
const EDGE = mm(15);
const TITLE = 17;
const TEXT = 9;
const LEAD = 12.5;
/** Between what is said and the pictures beside it; how wide what is said is. */
const [APART, SAID] = [mm(8), mm(96)];
const [THIN, THICK] = [0.4, 1.2];
/** By what a heading stands off from what is above it. */
const OFF = 7;

const set = (text: string, weight: Weight, size: number): Setting => ({
  face: faceFor(text, weight) ?? 'Source Sans 3',
  weight,
  size,
});
const textItem = (text: string, weight: Weight, size: number, x: number, y: number): Item => ({
  kind: 'text',
  ...set(text, weight, size),
  text,
  ink: BLACK,
  align: 'left',
  matrix: [1, 0, 0, 1, x, y],
});
const line = (
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  width: number,
  dash: readonly number[] = [],
): Item => markLine({ x0, y0, x1, y1 }, width, { ink: BLACK, dash });

/** A text as lines no wider than `width` points; a word that is wider is broken. */
export function wrap(text: string, weight: Weight, size: number, width: number): string[] {
  const fits = (words: string) => textWidth(words, set(text, weight, size)) <= width;
  const lines: string[] = [];
  let open = '';
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const longer = open ? `${open} ${word}` : word;
    if (fits(longer)) {
      open = longer;
      continue;
    }
    if (open) lines.push(open);
    open = '';
    for (const char of word) {
      if (open && !fits(open + char)) {
        lines.push(open);
        open = '';
      }
      open += char;
    }
  }
  return open ? [...lines, open] : lines;
}

/** The job ticket: one A4 page that says what a job is, beside small pictures of both sides of its first sheet. */
export function layTicket(ticket: Ticket, plan: SheetPlan | undefined): SheetPlan {
  const marks: Item[] = [];
  let y = PAPER.height - EDGE - TITLE;
  for (const said of wrap(ticket.title, 'strong', TITLE, PAPER.width - 2 * EDGE).slice(0, 2)) {
    marks.push(textItem(said, 'strong', TITLE, EDGE, y));
    y -= TITLE + 3;
  }
  marks.push(textItem(ticket.under, 'regular', TEXT, EDGE, y));
  y -= LEAD;
  marks.push(line(EDGE, y, PAPER.width - EDGE, y, THICK));
  const top = y - mm(6);
  marks.push(...say(ticket, top));
  const x = EDGE + SAID + APART;
  const room = { width: PAPER.width - EDGE - x, height: (top - EDGE) / 2 - mm(12) };
  const cells: Cell[] = [];
  const [sheet] = plan?.sheets ?? [];
  let head = top;
  for (const side of ['front', 'back'] as const) {
    if (!sheet?.[side]) continue;
    const scale = Math.min(room.width / sheet.size.width, room.height / sheet.size.height);
    marks.push(textItem(ticket.sides[side], 'strong', TEXT, x, head - TEXT));
    const foot = head - TEXT - mm(2) - sheet.size.height * scale;
    const small = smaller(sheet[side], sheet, [scale, 0, 0, scale, x, foot]);
    cells.push(...small.cells);
    marks.push(...small.lines);
    head = foot - mm(9);
  }
  const shown: Sheet = { size: PAPER, front: { cells, lines: [], marks } };
  return {
    sheet: PAPER,
    cell: PAPER,
    needed: { trims: PAPER, bleeds: PAPER, marks: PAPER },
    pages: cells,
    blanksAdded: 0,
    sheetCount: 1,
    sheets: [shown],
    faces: new Map(),
    foldings: [],
    piecesOn: () => [],
    laidOn: () => [],
    foldedFrom: () => [],
    sheetSize: () => PAPER,
    turnAxis: 'vertical',
    work: 'single-side',
    copies: { across: 1, up: 1 },
    pieceArea: PAPER.width * PAPER.height,
    piecesPerSheet: 1,
  };
}

/** What is said, from the top of its column down; the rest is counted where it has no room. */
function say({ parts, more }: Ticket, top: number): Item[] {
  const items: Item[] = [];
  let y = top - TEXT;
  let left = 0;
  for (const { heading, lines } of parts) {
    if (!lines.length) continue;
    if (y < EDGE + 4 * LEAD) {
      left += lines.length;
      continue;
    }
    items.push(textItem(heading, 'strong', TEXT, EDGE, y));
    y -= LEAD;
    for (const text of lines) {
      const wrapped = wrap(text, 'regular', TEXT, SAID);
      if (y - (wrapped.length - 1) * LEAD < EDGE + LEAD) {
        left++;
        continue;
      }
      for (const one of wrapped) {
        items.push(textItem(one, 'regular', TEXT, EDGE, y));
        y -= LEAD;
      }
    }
    y -= OFF;
  }
  if (left) items.push(textItem(more(left), 'strong', TEXT, EDGE, EDGE));
  return items;
}

/** A side of a sheet made smaller, with its edges, its trims and its folds. */
function smaller(side: SheetSide, { size }: Sheet, by: Matrix): { cells: Cell[]; lines: Item[] } {
  const frame = ({ x0, y0, x1, y1 }: Box, width: number) => [
    line(x0, y0, x1, y0, width),
    line(x1, y0, x1, y1, width),
    line(x1, y1, x0, y1, width),
    line(x0, y1, x0, y0, width),
  ];
  const cells = side.cells.map((cell): Cell => ({
    ...cell,
    matrix: compose(cell.matrix, by),
    trim: applyToBox(by, cell.trim),
    clip: applyToBox(by, cell.clip),
  }));
  const folds = side.lines.flatMap(({ kind, ...ends }): Item[] => {
    if (kind !== 'fold') return [];
    const { x0, y0, x1, y1 } = applyToBox(by, ends);
    return [line(x0, y0, x1, y1, THICK / 2, [3, 2])];
  });
  return {
    cells,
    lines: [
      ...frame(applyToBox(by, { x0: 0, y0: 0, x1: size.width, y1: size.height }), THICK / 2),
      ...cells.flatMap(({ trim }) => frame(trim, THIN)),
      ...folds,
    ],
  };
}
