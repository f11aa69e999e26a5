import { heightOf, overlap, sizeBox, widthOf, type Box } from '../../measure/box';
import { applyToBox, translate, turnMatrix, type Matrix } from '../../measure/matrix';
import { Line } from '../line/line';
import { coverLayers } from '../line/cover';
import type { Leaf } from '../line/book';
import { extentOf, folded, placedBy, type Paper } from '../line/paper';
import {
  PLACE_OF,
  type FinishPlan,
  type FoldOperation,
  type Operation,
  type OperationOf,
} from '../operations';
import { DRAWN_CALIPER, restOf, stacked, type Placed } from './placed';
import { pilesOf, type Pile } from './piles';
import { bookOf, closedBook, type Book } from './book';
import { entryAt, foundIn } from '../../entries';

/** What lies on the mat after an operation, or after one fold of it. */
export interface DummyState {
  /** Which of the plan's operations it is, from 0. */
  operation: number;
  /** The fold that has just been made, and whether it went under. */
  fold?: FoldOperation;
  parts: readonly Placed[];
  /** Where pieces lie that were stacked. */
  piles?: readonly Pile[];
}

/** The piece as it is made, from the printed sheet on. */
export interface DummyStates {
  states: readonly DummyState[];
  /** The finished book, if it is one: it can be opened. */
  book?: Book;
}

/** Pieces that were cut apart lie so much further from the middle of their sheet. */
const APART = 1.12;

/** Every operation on one sheet (from 1), then all that is done to the book that it goes into. */
export function dummyStates(plan: FinishPlan, sheet: number): DummyStates {
  const maker = new Maker(plan, sheet);
  plan.operations.forEach((operation, index) => maker.carryOut(operation, index));
  const { book } = maker;
  return { states: maker.states, ...(book ? { book } : {}) };
}

/** Sheets that can be followed to the piece that they become. */
export const sheetsToFollow = ({ operations }: FinishPlan): number[] =>
  operations
    .flatMap((operation) => (operation.kind === 'print' ? operation.sheets : []))
    .sort((a, b) => a - b);

class Maker {
  readonly states: DummyState[] = [];
  private readonly line: Line;
  /** The sheet that is followed, or its pieces, as they lie. */
  private lying: Paper[] = [];

  constructor(
    private readonly plan: FinishPlan,
    private readonly sheet: number,
  ) {
    this.line = new Line(plan);
  }

  private readonly caliperOf = (sheet: number): number => this.line.caliperOf(sheet) || DRAWN_CALIPER;

  get book(): Book | undefined {
    if (!this.line.leaves.length) return undefined;
    const { covered, trimmedAcross } = this.line;
    const cover = covered && coverLayers(covered, trimmedAcross);
    return bookOf(this.line.leaves, cover, this.plan.made.spine, this.caliperOf);
  }

  carryOut(operation: Operation, index: number): void {
    const { leaves, covered, trimmedAcross } = this.line;
    this.line.carryOut(operation);
    if ('sheets' in operation && isOnSheets(operation)) {
      if (operation.sheets.some((each) => each === this.sheet)) this.onSheet(operation, index);
      return;
    }
    if (operation.kind === 'count') {
      const last = this.states.at(-1);
      if (last)
        this.states.push({
          operation: index,
          parts: last.parts.filter(({ waste }) => !waste),
          ...(last.piles ? { piles: last.piles } : {}),
        });
      return;
    }
    if (!this.line.leaves.length) return;
    const was = leaves.length ? { leaves, cover: covered && coverLayers(covered, trimmedAcross) } : undefined;
    this.states.push({ operation: index, parts: this.block(was) });
  }

  private show(operation: number, more: Partial<DummyState> = {}): void {
    const parts = this.lying.flatMap(({ layers }) => stacked(layers, this.caliperOf));
    this.states.push({ operation, parts, ...more });
  }

  private onSheet(operation: OnSheets, index: number): void {
    const works = this.line.worksOf(this.sheet);
    switch (operation.kind) {
      case 'print':
        this.lying = works.map(({ paper }) => centred(paper));
        return this.show(index);
      case 'cut':
      case 'cut-out': {
        const whole = sizeBox(this.print.paper);
        const middle: Matrix = translate(-widthOf(whole) / 2, -heightOf(whole) / 2);
        this.lying = works.map(({ open, paper }) => {
          const { x, y } = middleOf(applyToBox(middle, open.flat));
          return centred(paper, APART * x, APART * y);
        });
        const rest = restOf(
          whole,
          works.map(({ open }) => open.flat),
        );
        const waste = rest.map((flat): Placed => ({
          sheet: this.sheet,
          flat,
          matrix: middle,
          up: 'front',
          from: 0,
          thick: this.caliperOf(this.sheet),
          waste: true,
        }));
        const parts = this.lying.flatMap(({ layers }) => stacked(layers, this.caliperOf));
        return void this.states.push({ operation: index, parts: [...parts, ...waste] });
      }
      case 'fold':
        return this.fold(operation, index);
      case 'stack': {
        const worksOf = (sheet: number) => this.line.worksOf(sheet);
        // As many as of each sheet become pieces.
        const net = this.print.each?.net || 1;
        const piles = pilesOf(operation, worksOf, this.sheet, this.caliperOf, net);
        return void this.states.push({ operation: index, ...piles });
      }
    }
  }

  /** How the sheet that is followed is printed. */
  private get print(): OperationOf<'print'> {
    const prints = this.plan.operations.flatMap((each) => (each.kind === 'print' ? [each] : []));
    return foundIn(prints, ({ sheets }) => sheets.includes(this.sheet));
  }

  private fold({ folds, pile, turn }: OperationOf<'fold'>, index: number): void {
    const works = this.line.worksOf(this.sheet);
    const isFolded = (n: number) => pile === undefined || entryAt(works, n).pile === pile;
    for (const fold of folds) {
      this.lying = this.lying.map((paper, n) => (isFolded(n) ? folded(paper, fold) : paper));
      this.show(index, { fold });
    }
    if (!turn && folds.length) return;
    this.lying = this.lying.map((paper, n) => {
      if (!isFolded(n)) return paper;
      const { x, y } = middleOf(extentOf(paper));
      return centred(placedBy(paper, turnMatrix(extentOf(paper), turn)), x, y);
    });
    this.show(index);
  }

  /** The first book as it lies closed, with what was just taken off it. */
  private block(
    was: { leaves: readonly Leaf[]; cover: ReturnType<typeof coverLayers> | undefined } | undefined,
  ): Placed[] {
    const now = this.book;
    if (!now) return [];
    const parts = closedBook(now);
    if (!was) return parts;
    const before = closedBook(bookOf(was.leaves, was.cover, this.plan.made.spine, this.caliperOf));
    return [...parts, ...wasteOf(before, parts)];
  }
}

type OnSheets = Extract<Operation, { kind: 'print' | 'cut' | 'cut-out' | 'fold' | 'stack' }>;
/** Operations on sheets or their pieces, before any are laid together. */
const isOnSheets = (operation: Operation): operation is OnSheets =>
  operation.kind !== 'count' && PLACE_OF[operation.kind] !== 'bindery';

const middleOf = (box: Box): { x: number; y: number } => ({
  x: (box.x0 + box.x1) / 2,
  y: (box.y0 + box.y1) / 2,
});

/** Paper with its middle at a point. */
function centred(paper: Paper, x = 0, y = 0): Paper {
  const at = middleOf(extentOf(paper));
  return placedBy(paper, translate(x - at.x, y - at.y));
}

/** What parts have lost, where it would lie now. */
function wasteOf(before: readonly Placed[], after: readonly Placed[]): Placed[] {
  const left = new Map<number, Placed[]>();
  for (const part of after) left.set(part.sheet, [...(left.get(part.sheet) ?? []), part]);
  return before.flatMap((part) => {
    const stays = left.get(part.sheet)?.find(({ flat }) => overlap(flat, part.flat));
    return stays
      ? restOf(part.flat, [stays.flat]).map((flat): Placed => ({ ...stays, flat, waste: true }))
      : [];
  });
}
