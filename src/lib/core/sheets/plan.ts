import type { Pattern } from '../fold/folding';
import type { Box, Size } from '../measure/box';
import type { Matrix, Turn } from '../measure/matrix';
import type { CoverPart } from '../model/page';
import type { Page, Side } from '../model/page';
import type { Colour } from '../ink/colour';
import { type CellAt, type WorkStyle } from './pressTerms';
import type { Item } from '../model/surface';

/** A page in its place in the plan; `page` is undefined for a blank that only fills the last sheet. */
export interface PlannedPage {
  /** Its place in the plan, from 1; faces of panels come after all pages. */
  position: number;
  /** What it is called: its position, or a panel's address. */
  name: string;
  label: string;
  side: Side;
  page?: Page;
}

/** One page's place on a sheet side. Boxes in points from the sheet side's lower left corner, as that side is seen. */
export interface Cell extends PlannedPage {
  /** Where it is cut or folded. */
  trim: Box;
  /** Trim and as much bleed as does not run into a neighbour. */
  clip: Box;
  turn: Turn;
  /** From page space (origin at the page's trim) to the sheet side. */
  matrix: Matrix;
  /** It was changed by hand, or left empty. */
  hand?: 'changed' | 'left-out';
}

export interface SheetLine {
  kind: 'trim-mark' | 'fold-mark' | 'centre-mark' | 'fold' | 'cut-path' | 'fold-path';
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** How a sheet, or a piece cut out of it, is folded: as it lies on its front, with the paper beyond its trims where that is folded along. */
export interface SheetFolding extends FlatFolding {
  /** From 1. */
  sheet: number;
}

/** A piece of a forme, from trim to trim, and how it lies turned there, clockwise. */
export interface FormePiece {
  box: Box;
  turn: Turn;
  /** Which of the job's pieces it is, or its place among the cells as they are filled, from 0. */
  of: number;
}

/** A forme as it lies on a sheet, seen from the front. */
export interface LaidForme {
  /** From the forme to the front of the sheet. */
  matrix: Matrix;
  /** From trim to trim, on the sheet. */
  box: Box;
  /** How it lies turned, clockwise. */
  turn: Turn;
  /** It lies on its face. */
  over: boolean;
  pieces: readonly FormePiece[];
}

export interface SheetSide {
  cells: readonly Cell[];
  lines: readonly SheetLine[];
  /** Marks that are more than lines, or are other on each side. */
  marks?: readonly Item[];
  /** Marks that were asked for and have no room. */
  dropped?: readonly string[];
}

export interface Sheet {
  size: Size;
  front: SheetSide;
  /** Nothing if only one side is printed. */
  back?: SheetSide;
  /** What it is called if there is more to say than its number. */
  name?: string;
}

/** What sheets hang on besides their pages and the scheme. */
export interface SheetJob {
  /** For slug lines. */
  title: string;
  /** The safe margin, in points: creep moves nothing further. */
  safe: number;
  /** The spot inks that have plates, each as what it is called now and a full tint; asked for where marks show them. */
  spots: () => readonly { name: string; ink: Extract<Colour, { as: 'spot' }> }[];
}
/** Sheets by themselves. */
export const NO_JOB: SheetJob = { title: '', safe: Infinity, spots: () => [] };

/** Everything that a scheme works out. */
export interface SheetPlan {
  /** The sheet as it lies; of sheets of several sizes, the first. */
  sheet: Size;
  /** The trim size of the cells: that of the most pages. */
  cell: Size;
  /** Width and height of sheet that the trims, the bleed, and the bleed with its marks take. */
  needed: { trims: Size; bleeds: Size; marks: Size };
  pages: readonly PlannedPage[];
  blanksAdded: number;
  /** How many sheets there are, the cover's not among them. */
  sheetCount: number;
  /** The sheets themselves, that of a cover last; worked out when they are first asked for. */
  readonly sheets: readonly Sheet[];
  /** One of them by its index, worked out anew each time: for who goes through many and keeps none. Not where cells were changed by hand. */
  readonly lay?: (index: number) => Sheet;
  /** On how many cells each page lies, by its id, where the work lies once on a sheet; worked out when first asked for. */
  readonly faces: ReadonlyMap<string, number>;
  /** What is cut out of a sheet (from 0) before anything is folded, or the whole work on it where that is folded first: their trims as its front lies. */
  readonly piecesOn: (index: number) => readonly Box[];
  /** How often the work lies on a sheet (from 0), and how; from the left, rows from the foot. */
  readonly laidOn: (index: number) => readonly LaidForme[];
  /** How the work on a sheet (from 0) is folded, as it lies upright by itself. */
  readonly foldedFrom: (index: number) => readonly FlatFolding[];
  /** How large a sheet (from 0) is, as it lies. */
  readonly sheetSize: (index: number) => Size;
  /** How its sheets are folded, in their order; worked out when first asked for. */
  readonly foldings: readonly SheetFolding[];
  /** What changes by hand make of the finished piece. */
  readonly hand?: HandResult | undefined;
  /** The axis, as the front lies, about which the sheet is turned over. */
  turnAxis: 'vertical' | 'horizontal';
  /** How both sides come to be printed. */
  work: WorkStyle;
  /** How many of the piece a sheet carries, side by side and one above the other. */
  copies: { across: number; up: number };
  /** Of marks, in points. */
  weight?: number;
  /**
   * How far each leaf should be moved, or made narrower, for the thickness of those around it, and how far it is; from the
   * outermost, in points.
   */
  creep?: readonly { wanted: number; done: number }[];
  /** Cells of a sheet whose pieces differ, side by side and one above the other. */
  grid?: { across: number; up: number };
  /** Paper of one finished piece, in square points. */
  pieceArea: number;
  /** Ganged pieces: how often each lies on the sheet, and the sheets that give the quantities wanted. */
  gang?: { each: readonly number[]; sheets: number };
  /** Pieces that were to be ganged and do not fit on one sheet: how many of each are wanted, sheet by sheet. */
  apart?: readonly number[];
  /** The cover of a bound book. */
  cover?: CoverPlan;
  /** Leaves, panels or cells that a folded or cut sheet gives: what run lengths are counted by. */
  piecesPerSheet: number;
}

/** What makes up the width of a spine; lengths in points. */
export interface SpineWork {
  leaves: number;
  /** Thickness of a leaf, where the paper is known. */
  caliper?: number;
  signatures: number;
  /** Between one signature and the next. */
  thread: number;
  added: number;
  /** Their sum, where the thickness is known. */
  worked?: number;
  /** What the cover is made with: as typed, as worked out, else as its pages have it. */
  width: number;
}

/** The sheet that a cover is printed on. */
export interface CoverPlan {
  plan: SheetPlan;
  spine: SpineWork;
  /** What stands side by side on its outside, from the left, or from the foot of a book bound at the head; with lengths in points. */
  parts: readonly { part: CoverPart; length: number }[];
  /** From trim to trim, flat. */
  size: Size;
}

/** How many sheets a finished piece takes in all. */
export const allSheets = ({ sheetCount, cover }: SheetPlan): number => sheetCount + (cover ? 1 : 0);

/** One side of a sheet as it goes out. */
export interface PrintedSide {
  /** Number of its sheet, from 1. */
  sheet: number;
  side: 'front' | 'back';
  drawn: SheetSide;
  size: Size;
}

/** All sides that are printed: front and back of each sheet in turn, where it has both. */
export const sidesOf = ({ sheets }: SheetPlan): PrintedSide[] => sheets.flatMap(sidesOfSheet);

const sidesOfSheet = ({ front, back, size }: Sheet, n: number): PrintedSide[] => [
  { sheet: n + 1, side: 'front', drawn: front, size },
  ...(back ? [{ sheet: n + 1, side: 'back' as const, drawn: back, size }] : []),
];

/** The same one after another, none of them kept, so that memory does not grow with their number. */
export function* eachSide(plan: SheetPlan): Generator<PrintedSide> {
  const { lay, sheetCount, cover } = plan;
  if (!lay) return yield* sidesOf(plan);
  for (let n = 0; n < sheetCount; n++) yield* sidesOfSheet(lay(n), n);
  for (const sheet of cover?.plan.sheets ?? []) yield* sidesOfSheet(sheet, sheetCount);
}

/** Where the sides lie that `eachSide` gives, in its order; of sheets that are alike only the first is laid. */
export function sidePlaces(plan: SheetPlan): Pick<PrintedSide, 'sheet' | 'side'>[] {
  const { lay, sheetCount, cover } = plan;
  const placed = (all: readonly Sheet[], from = 0) =>
    all.flatMap((sheet, n) => sidesOfSheet(sheet, from + n)).map(({ sheet, side }) => ({ sheet, side }));
  if (!lay || !sheetCount) return placed(plan.sheets);
  const alike = Array<Sheet>(sheetCount).fill(lay(0));
  return [...placed(alike), ...placed(cover?.plan.sheets ?? [], sheetCount)];
}

/** How many sides there are. */
export const countSides = (plan: SheetPlan): number => sidePlaces(plan).length;

/** How a forme, or one of the pieces cut out of it, is folded: its panels from edge to edge as the front lies, and its folds in order. */
export interface FlatFolding {
  pattern: Pattern;
  /** It is cut to its trims before it is folded; else the whole sheet is folded and trimmed afterwards. */
  cutFirst: boolean;
  /** Which piece it is, where a forme has several. */
  of?: string;
  /** The same by its number, from 0. */
  piece?: number;
  /** The trim of a leaf that it binds, where it is flat. */
  leaf?: Box;
}

/** What a cell shows in place of what the scheme put there. */
export interface FaceChange {
  planned: PlannedPage;
  /** Turned by half a turn more. */
  turned: boolean;
  /** Nothing is printed there. */
  out: boolean;
}
export type FaceChanges = Record<'front' | 'back', Map<number, FaceChange>>;

/** What changes by hand make of the finished piece: in the place of which page another one is met, or none, or one upside down. */
export interface HandResult {
  changed: readonly { at: CellAt; place: PlannedPage; shows?: PlannedPage; turned: boolean }[];
  /** Indexes of changes to cells that are not there. */
  gone: readonly number[];
}

/** Sheets that are drawn as they are and made into nothing: a ticket, a template, a paper dummy. */
export function plainPlan(sheets: readonly Sheet[], more: Partial<SheetPlan> = {}): SheetPlan {
  const [size = { width: 0, height: 0 }] = sheets.map((sheet) => sheet.size);
  return {
    sheet: size,
    cell: size,
    needed: { trims: size, bleeds: size, marks: size },
    pages: sheets.flatMap(({ front, back }) => [...front.cells, ...(back?.cells ?? [])]),
    blanksAdded: 0,
    sheetCount: sheets.length,
    sheets,
    faces: new Map(),
    foldings: [],
    piecesOn: () => [],
    laidOn: () => [],
    foldedFrom: () => [],
    sheetSize: (index) => sheets[index]?.size ?? size,
    turnAxis: 'vertical',
    work: 'single-side',
    copies: { across: 1, up: 1 },
    pieceArea: size.width * size.height,
    piecesPerSheet: 1,
    ...more,
  };
}
