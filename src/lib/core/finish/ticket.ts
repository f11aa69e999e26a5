import { sizeBox, type Size } from '../measure/box';
import { applyToBox, compose, translate, type Matrix } from '../measure/matrix';
import { mm } from '../measure/unit';
import { faceFor, textWidth } from '../numbers/faceMetrics';
import type { Setting, Weight } from '../model/faces';
import { BLACK } from '../ink/colour';
import type { Item } from '../model/surface';
import { plainPlan, type Cell, type Sheet, type SheetPlan, type SheetSide } from '../sheets/plan';
import { frame, line, type Drawing } from './drawings';
import { entryAt, lastOf } from '../entries';

/** Something a ticket says: a heading, lines that may be long, and small pictures under them. */
export interface TicketBlock {
  heading: string;
  lines: readonly string[];
  drawings?: readonly Drawing[];
}
/** What is read at one place: each begins on paper of its own. */
export interface TicketPage {
  /** Where it is read, or what it says. */
  place: string;
  blocks: readonly TicketBlock[];
  /** Sheets of a plan that are shown small, both sides, by their indexes, with what each picture is called. */
  shows?: readonly { plan: SheetPlan; index: number; sides: Readonly<Record<'front' | 'back', string>> }[];
}
export interface Ticket {
  title: string;
  pages: readonly TicketPage[];
  /** Under the title of each page, by its number and that of all. */
  under: (place: string, page: number, of: number) => string;
}

const PAPER: Size = { width: mm(210), height: mm(297) };
const EDGE = mm(15);
const TITLE = 17;
const TEXT = 9;
const LEAD = 12.5;
/** Lines are as wide as the paper between its edges. */
const SAID = PAPER.width - 2 * EDGE;
/** Between pictures, and how large one is at most: of an operation, of a side of a sheet. */
const APART = mm(6);
const [SMALL, LARGE] = [
  { width: mm(41), height: mm(34) },
  { width: mm(87), height: mm(78) },
];
/** A picture of many cuts. */
const WIDE: Size = { width: mm(150), height: mm(110) };
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

/** The job ticket: A4 pages, one or more for each place at which it is read. */
export function layTicket(ticket: Ticket): SheetPlan {
  const laid = ticket.pages.flatMap((page) => new Laying(page).papers);
  const sheets = laid.map(({ place, cells, marks }, n): Sheet => {
    const head: Item[] = [];
    let y = PAPER.height - EDGE - TITLE;
    head.push(textItem(firstLine(ticket.title), 'strong', TITLE, EDGE, y));
    y -= TITLE + 3;
    head.push(textItem(ticket.under(place, n + 1, laid.length), 'regular', TEXT, EDGE, y));
    y -= LEAD;
    head.push(line(EDGE, y, PAPER.width - EDGE, y, THICK));
    return { size: PAPER, front: { cells, lines: [], marks: [...head, ...marks] } };
  });
  return plainPlan(sheets);
}

/** A title in one line; the rest of one that is too long goes without saying. */
function firstLine(title: string): string {
  const [first = '', more] = wrap(title, 'strong', TITLE, SAID);
  return more ? `${first} …` : first;
}

/** Below the title. */
const TOP = PAPER.height - EDGE - 2 * TITLE - LEAD - mm(7);

interface TicketPaper {
  place: string;
  cells: Cell[];
  marks: Item[];
}

/** Lays what is read at one place on paper, from the top down; what has no room goes on on the next. */
class Laying {
  readonly papers: TicketPaper[] = [];
  private y = TOP;

  constructor(private readonly page: TicketPage) {
    this.turn();
    for (const block of page.blocks) this.say(block);
    for (const each of page.shows ?? []) this.show(each.plan, each.index, each.sides);
  }

  private get paper(): TicketPaper {
    return lastOf(this.papers);
  }
  private turn(): void {
    this.papers.push({ place: this.page.place, cells: [], marks: [] });
    this.y = TOP;
  }
  /** Goes on on the next paper if so much has no room. */
  private need(height: number): void {
    if (this.y - height < EDGE && this.y < TOP) this.turn();
  }

  private say({ heading, lines, drawings = [] }: TicketBlock): void {
    const wrapped = lines.map((text) => wrap(text, 'regular', TEXT, SAID));
    // A heading stays with its first line.
    this.need(LEAD * (1 + (wrapped[0]?.length ?? 0)) + (lines.length ? 0 : rowHeight(drawings)));
    this.paper.marks.push(textItem(heading, 'strong', TEXT, EDGE, this.y - TEXT));
    this.y -= LEAD;
    for (const one of wrapped.flat()) {
      this.need(LEAD);
      this.paper.marks.push(textItem(one, 'regular', TEXT, EDGE, this.y - TEXT));
      this.y -= LEAD;
    }
    this.draw(drawings);
    this.y -= OFF;
  }

  /** Pictures side by side, as many as there is room for, each with its name under it. */
  private draw(drawings: readonly Drawing[]): void {
    const inRow = drawings.some(({ isLarge }) => isLarge)
      ? 1
      : Math.floor((SAID + APART) / (SMALL.width + APART));
    for (let n = 0; n < drawings.length; n += inRow) {
      const row = drawings.slice(n, n + inRow);
      const height = rowHeight(row);
      this.need(height);
      row.forEach((drawing, k) => {
        const scale = scaleOf(drawing);
        const x = EDGE + k * (SMALL.width + APART);
        const y = this.y - mm(1) - drawing.size.height * scale;
        this.paper.marks.push(...drawing.items(scale).map((item) => moved(item, x, y)));
        wrap(drawing.caption, 'regular', CAPTION, SMALL.width).forEach((text, m) =>
          this.paper.marks.push(textItem(text, 'regular', CAPTION, x, y - (m + 1) * (CAPTION + 2))),
        );
      });
      this.y -= height;
    }
  }

  /** Both sides of a sheet, side by side. */
  private show(plan: SheetPlan, index: number, names: Readonly<Record<'front' | 'back', string>>): void {
    const sheet = entryAt(plan.sheets, index);
    const scale = fitInto(sheet.size, LARGE);
    const height = sheet.size.height * scale;
    this.need(height + LEAD + OFF);
    (['front', 'back'] as const).forEach((side, n) => {
      const drawn = sheet[side];
      if (!drawn) return;
      const x = EDGE + n * (LARGE.width + APART);
      this.paper.marks.push(textItem(names[side], 'strong', TEXT, x, this.y - TEXT));
      const small = smaller(drawn, sheet, [scale, 0, 0, scale, x, this.y - LEAD - mm(1) - height]);
      this.paper.cells.push(...small.cells);
      this.paper.marks.push(...small.lines);
    });
    this.y -= height + LEAD + mm(1) + OFF;
  }
}

/** Under pictures, in points. */
const CAPTION = 7;
const fitInto = ({ width, height }: Size, into: Size): number =>
  Math.min(into.width / width, into.height / height);
const scaleOf = ({ size, fit = size, isLarge }: Drawing): number => fitInto(fit, isLarge ? WIDE : SMALL);
/** How much a row of pictures takes, with what stands under them. */
const rowHeight = (row: readonly Drawing[]): number =>
  row.length
    ? Math.max(
        ...row.map(
          (drawing) =>
            drawing.size.height * scaleOf(drawing) +
            mm(2) +
            wrap(drawing.caption, 'regular', CAPTION, SMALL.width).length * (CAPTION + 2),
        ),
      ) + mm(2)
    : 0;

function moved(item: Item, x: number, y: number): Item {
  if (item.kind === 'line')
    return { ...item, x0: item.x0 + x, x1: item.x1 + x, y0: item.y0 + y, y1: item.y1 + y };
  if (item.kind === 'text') return { ...item, matrix: compose(item.matrix, translate(x, y)) };
  return item;
}

/** A side of a sheet made smaller, with its edges, its trims and its folds. */
function smaller(side: SheetSide, { size }: Sheet, by: Matrix): { cells: Cell[]; lines: Item[] } {
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
      ...frame(applyToBox(by, sizeBox(size)), THICK / 2),
      ...cells.flatMap(({ trim }) => frame(trim, THIN)),
      ...folds,
    ],
  };
}
