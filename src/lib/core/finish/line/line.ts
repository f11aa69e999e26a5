import { shift, sizeBox, type Box, type Size } from '../../measure/box';
import type { Spine } from '../../model/page';
import { productOf, type CutPiece, type FinishPlan, type Operation, type OperationOf } from '../operations';
import { followCuts } from '../strips';
import {
  cutOffLeaves,
  fromSpine,
  jogged,
  joinedLeaves,
  leavesOf,
  nested,
  pushedOut,
  trimmed,
  type Leaf,
} from './book';
import { facesOf, openLeaf, pagesOfLeaves, pagesOfPanels, type Finished } from './finished';
import {
  atOrigin,
  cutFrom,
  folded,
  sheetOf,
  sizeOfPaper,
  turned,
  turnedOver,
  type Layer,
  type Paper,
} from './paper';
import { entryAt, entryOf, firstOf } from '../../entries';
import { pagesOfCover, type Covered } from './cover';

/** A piece on its way: as it lay open, and as it lies now. */
export interface Work {
  strip: string;
  pile: number;
  open: Layer;
  paper: Paper;
}

/** The pieces of a pile in order, from the top: sheet after sheet, or strip after strip. */
export function inOrder(
  { sheets, by }: Pick<OperationOf<'stack'>, 'sheets' | 'by'>,
  strips: readonly string[],
  worksOf: (sheet: number) => readonly Work[],
): Work[] {
  const on = (sheet: number, strip: string) => worksOf(sheet).filter((work) => work.strip === strip);
  return by === 'strips'
    ? strips.flatMap((strip) => sheets.flatMap((sheet) => on(sheet, strip)))
    : sheets.flatMap((sheet) => strips.flatMap((strip) => on(sheet, strip)));
}

/** How far from the spine, and from the jogged edge, the knives go that trim a block. */
const knivesOf = ({ spine, size }: OperationOf<'trim'>): { along: number; across: number } =>
  spine === 'head' ? { along: size.height, across: size.width } : { along: size.width, across: size.height };

/** A piece cut out of a sheet, laid as it is told. */
function laidOnPile(sheet: number, box: Box, { strip, pile, turn, over }: CutPiece): Work {
  const upright = turned(cutFrom(sheet, box), turn);
  const paper = over ? turnedOver(upright) : upright;
  return { strip, pile, open: firstOf(paper.layers), paper };
}

/** The finishing line at work: what lies on it after each operation. Throws an Error if the plan asks for paper that is not there. */
export class Line {
  private readonly works = new Map<number, Work[]>();
  private readonly calipers = new Map<number, number>();
  /** The leaves of each book: one for each piece that a sheet gives. */
  private blocks: Leaf[][] = [];
  private covers: Covered[] = [];
  private trim: OperationOf<'trim'> | undefined;
  private readonly piles: Finished[] = [];

  constructor(private readonly plan: FinishPlan) {}

  private get spine(): Spine {
    return this.plan.made.spine;
  }

  /** The pieces that came of a sheet, or the sheet. */
  worksOf(sheet: number): readonly Work[] {
    return entryOf(this.works, sheet);
  }

  /** The leaves of the first book, from the top; none before they are laid together. */
  get leaves(): readonly Leaf[] {
    return this.blocks[0] ?? [];
  }

  /** The cover of the first book, from when it is glued on. */
  get covered(): Covered | undefined {
    return this.covers[0];
  }

  /** How far a knife that trimmed the block went, across it. */
  get trimmedAcross(): number | undefined {
    return this.trim && knivesOf(this.trim).across;
  }

  /** How thick the paper of a sheet is; 0 where it is not known. */
  caliperOf(sheet: number): number {
    return entryOf(this.calipers, sheet);
  }

  carryOut(operation: Operation): void {
    switch (operation.kind) {
      case 'print':
        return this.print(operation);
      case 'cut':
        return this.cut(operation);
      case 'cut-out':
        return this.cutOut(operation);
      case 'fold':
        return this.fold(operation);
      case 'nest':
        return this.nest(operation);
      case 'gather':
        return this.gather(operation);
      case 'tip-in':
        return this.tipIn(operation);
      case 'bind':
        return this.bind(operation);
      case 'cover':
        return this.cover(operation);
      case 'trim':
        return this.trimBlocks(operation);
      case 'stack':
        return this.stack(operation);
      case 'count':
        return undefined;
    }
  }

  private print({ sheets, paper }: OperationOf<'print'>): void {
    for (const sheet of sheets) {
      const whole = sheetOf(sheet, paper);
      this.works.set(sheet, [{ strip: '', pile: 1, open: firstOf(whole.layers), paper: whole }]);
      this.calipers.set(sheet, paper.caliper ?? 0);
    }
  }

  private sizeOf(sheet: number): Size {
    return sizeOfPaper(firstOf(entryOf(this.works, sheet)).paper);
  }

  private cut({ sheets, cuts, pieces }: OperationOf<'cut'>): void {
    for (const sheet of sheets) {
      const strips = followCuts(this.sizeOf(sheet), cuts).papers;
      this.works.set(
        sheet,
        pieces.map((piece) => laidOnPile(sheet, entryOf(strips, piece.strip), piece)),
      );
    }
  }

  private cutOut({ sheets, pieces }: OperationOf<'cut-out'>): void {
    for (const sheet of sheets)
      this.works.set(
        sheet,
        pieces.map((piece) => laidOnPile(sheet, shift(sizeBox(piece.size), piece.x, piece.y), piece)),
      );
  }

  private fold({ sheets, pile, folds, turn }: OperationOf<'fold'>): void {
    for (const sheet of sheets)
      this.works.set(
        sheet,
        entryOf(this.works, sheet).map((work) => {
          if (pile !== undefined && work.pile !== pile) return work;
          const paper = folds.reduce((done, fold) => atOrigin(folded(done, fold)), work.paper);
          return { ...work, paper: turned(paper, turn) };
        }),
      );
  }

  /** What each sheet gives, one piece of each for every book. */
  private forEachBook(
    sheets: readonly { sheet: number }[],
    lay: (piece: (sheet: number) => Paper) => Leaf[],
  ): void {
    const first = sheets[0];
    if (!first) return;
    const books = entryOf(this.works, first.sheet).length;
    this.blocks = Array.from({ length: books }, (_, n) =>
      lay((sheet) => entryAt(entryOf(this.works, sheet), n).paper),
    );
  }

  private leavesIn(paper: Paper, sheet: number, spine: Spine): Leaf[] {
    return pushedOut(leavesOf(paper, spine), spine, entryOf(this.calipers, sheet));
  }

  private nest({ spine, sheets }: OperationOf<'nest'>): void {
    this.forEachBook(sheets, (piece) => {
      const papers = sheets.map(({ sheet, inside }) => jogged({ paper: piece(sheet), inside }, spine));
      return this.leavesIn(papers.reduce(nested), firstOf(sheets).sheet, spine);
    });
  }

  private gather({ spine, sheets }: OperationOf<'gather'>): void {
    this.forEachBook(sheets, (piece) =>
      sheets.flatMap(({ sheet, inside }) =>
        this.leavesIn(jogged({ paper: piece(sheet), inside }, spine), sheet, spine),
      ),
    );
  }

  private tipIn({ spine, sheet, after, inside, from }: OperationOf<'tip-in'>): void {
    const works = entryOf(this.works, sheet);
    const blocks = this.blocks.length ? this.blocks : works.map(() => []);
    this.blocks = blocks.map((leaves, n) => {
      const tipped = leavesOf(jogged({ paper: entryAt(works, n).paper, inside }, spine, from), spine);
      return [...leaves.slice(0, after), ...tipped, ...leaves.slice(after)];
    });
  }

  private bind({ spine, roughing }: OperationOf<'bind'>): void {
    if (!roughing) return;
    this.blocks = this.blocks.map((leaves) =>
      fromSpine(trimmed(leaves, spine, [roughing, Infinity], [-Infinity, Infinity]), spine, roughing),
    );
  }

  private cover(told: OperationOf<'cover'>): void {
    this.covers = entryOf(this.works, told.sheet).map(({ open }) => ({ open, told }));
  }

  private trimBlocks(told: OperationOf<'trim'>): void {
    this.trim = told;
    const { along, across } = knivesOf(told);
    this.blocks = this.blocks.map((leaves) => trimmed(leaves, told.spine, [-Infinity, along], [0, across]));
  }

  private stack({ sheets, by, piles }: OperationOf<'stack'>): void {
    for (const { pile, strips = [], pieces } of piles) {
      if (by === 'alike') {
        for (const sheet of sheets)
          entryOf(this.works, sheet)
            .filter((work) => work.pile === pile)
            .forEach((work, n) => this.piles.push(this.pieces(productOf(sheet, pile), n + 1, [work])));
        continue;
      }
      const order = inOrder({ sheets, by }, strips, (sheet) => this.worksOf(sheet));
      const product = productOf(firstOf(sheets), pile);
      const copy = this.piles.filter((each) => each.product === product).length + 1;
      this.piles.push(this.pieces(product, copy, order.slice(0, pieces)));
    }
  }

  /** Pieces as loose leaves, one after another. */
  private pieces(product: number, copy: number, works: readonly Work[]): Finished {
    const { spine } = this;
    const leaves = works.map(({ open, paper }) => openLeaf(open, paper.layers, spine));
    const pages =
      this.plan.made.reads === 'panels'
        ? works.flatMap(({ open, paper }) => pagesOfPanels(open, paper.layers, spine))
        : this.plan.made.reads === 'sides'
          ? works.flatMap(({ open }) => facesOf(open, open, spine, (face) => ({ leaf: 0, face })))
          : pagesOfLeaves(leaves, spine);
    return { product, copy, pages, size: sizeOfPaper(firstOf(works).paper), joined: [], cutOff: [] };
  }

  finished(): Finished[] {
    if (this.plan.made.reads === 'bound') return this.blocks.map((leaves, n) => this.book(leaves, n));
    if (this.piles.length) return this.piles;
    return [...this.works].flatMap(([sheet, works]) =>
      works.map((work, n) => this.pieces(sheet, n + 1, [work])),
    );
  }

  private book(leaves: Leaf[], n: number): Finished {
    const { spine } = this;
    const covered = this.covers[n % Math.max(1, this.covers.length)];
    const pages = [
      ...pagesOfLeaves(leaves, spine),
      ...(covered ? pagesOfCover(covered, this.trimmedAcross) : []),
    ];
    const size = this.trim?.size ?? sizeOfPaper({ layers: leaves.map(({ base }) => base), middle: 0 });
    const knife = this.trim && knivesOf(this.trim);
    const knives = knife ? { along: [knife.along], across: [0, knife.across] } : { along: [], across: [] };
    return {
      product: 1,
      copy: n + 1,
      pages,
      size,
      joined: joinedLeaves(leaves, spine, knives),
      cutOff: cutOffLeaves(leaves, spine, knives),
    };
  }
}
