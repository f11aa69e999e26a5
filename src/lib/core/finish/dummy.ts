import { creasesOf, type Crease } from '../fold/creases';
import { FoldError, foldStates } from '../fold/fold';
import { BLACK, type Colour } from '../ink/colour';
import { sizeBox, type Box, type Size } from '../measure/box';
import { applyToBox, compose, type Matrix } from '../measure/matrix';
import { mm } from '../measure/unit';
import type { Item } from '../model/surface';
import { faceFor, textWidth } from '../numbers/faceMetrics';
import {
  plainPlan,
  type Cell,
  type PlannedPage,
  type Sheet,
  type SheetPlan,
  type SheetSide,
} from '../sheets/plan';
import { frame, line } from './drawings';
import { lastOf } from '../entries';

/** Paper of office printers, portrait, in points. */
export const DUMMY_PAPERS = {
  A4: { width: mm(210), height: mm(297) },
  Letter: { width: 612, height: 792 },
} as const;
export type DummyPaper = keyof typeof DUMMY_PAPERS;

/** Office printers leave an edge white: 5 mm, by practice. */
const EDGE = mm(5);
const WHITE: Colour = { as: 'process', c: 0, m: 0, y: 0, k: 0 };
const [THIN, THICK] = [0.4, 1];
const [NUMBER, NOTE] = [20, 7];

/**
 * The paper dummy: every sheet made small enough for an office printer, both sides in their places to each other, with what each
 * page is called, its trims, and its folds by their order and the way they go. It is printed on both sides without being fitted
 * to the paper, turned as the sheets are.
 */
export function paperDummy(plan: SheetPlan, paper: DummyPaper, say: (crease: Crease) => string): SheetPlan {
  const sheets = plan.sheets.map((sheet, index) => smallSheet(plan, sheet, index, paper, say));
  return plainPlan(sheets, { turnAxis: plan.turnAxis, work: plan.work });
}

/** How much smaller a sheet is on its paper, and the paper as it lies. */
export function dummyScale({ width, height }: Size, paper: DummyPaper): { scale: number; size: Size } {
  const { width: short, height: long } = DUMMY_PAPERS[paper];
  const size = width > height ? { width: long, height: short } : { width: short, height: long };
  const scale = Math.min(1, (size.width - 2 * EDGE) / width, (size.height - 2 * EDGE) / height);
  return { scale, size };
}

function smallSheet(
  plan: SheetPlan,
  sheet: Sheet,
  index: number,
  paper: DummyPaper,
  say: (crease: Crease) => string,
): Sheet {
  const { scale, size } = dummyScale(sheet.size, paper);
  const by: Matrix = [
    scale,
    0,
    0,
    scale,
    (size.width - sheet.size.width * scale) / 2,
    (size.height - sheet.size.height * scale) / 2,
  ];
  const isCover = index >= plan.sheetCount;
  const creases = isCover ? [] : creasesOn(plan, index);
  const axis = isCover ? plan.cover!.plan.turnAxis : plan.turnAxis;
  const { width, height } = sheet.size;
  const behind: Matrix = axis === 'vertical' ? [-1, 0, 0, 1, width, 0] : [1, 0, 0, -1, 0, height];
  const seen = (way: Matrix) =>
    creases.map(({ line, crease }) => ({ line: applyToBox(compose(way, by), line), crease }));
  const side = (drawn: SheetSide, way: Matrix, isBack: boolean): SheetSide => {
    const cells = drawn.cells.map((cell) => smallCell(cell, by));
    return {
      cells,
      lines: [],
      marks: [
        ...frame(applyToBox(by, sizeBox(sheet.size)), THICK),
        ...cells.flatMap(({ trim }) => frame(trim, THIN)),
        ...seen(way).flatMap(({ line, crease }) =>
          foldLine(line, say(isBack ? turnedCrease(crease) : crease)),
        ),
        ...cells.flatMap(numberOf),
      ],
    };
  };
  return {
    size,
    front: side(sheet.front, [1, 0, 0, 1, 0, 0], false),
    ...(sheet.back ? { back: side(sheet.back, behind, true) } : {}),
  };
}

const smallCell = (cell: Cell, by: Matrix): Cell => ({
  ...cell,
  matrix: compose(cell.matrix, by),
  trim: applyToBox(by, cell.trim),
  clip: applyToBox(by, cell.trim),
});

/** The creases of the work on a sheet, where they lie on its front; none where paper cannot fold so. */
function creasesOn(plan: SheetPlan, index: number): { line: Box; crease: Crease }[] {
  const placed = plan.laidOn(index);
  return plan.foldedFrom(index).flatMap(({ pattern }) => {
    try {
      const creases = creasesOf(pattern, lastOf(foldStates(pattern, pattern.folds)));
      return placed.flatMap(({ matrix, over }) =>
        creases.map((crease) => {
          const { axis, at, from, to } = crease;
          const flat =
            axis === 'vertical' ? { x0: at, x1: at, y0: from, y1: to } : { x0: from, x1: to, y0: at, y1: at };
          return { line: applyToBox(matrix, flat), crease: over ? turnedCrease(crease) : crease };
        }),
      );
    } catch (error) {
      if (error instanceof FoldError) return [];
      throw error;
    }
  });
}

/** Seen from behind, what closes over the front is a mountain. */
const turnedCrease = (crease: Crease): Crease => ({
  ...crease,
  way: crease.way === 'valley' ? 'mountain' : 'valley',
});

/** Words on white, in the middle of a place, their head turned clockwise. */
function words(said: string, size: number, x: number, y: number, turn: number): Item[] {
  const setting = {
    face: faceFor(said, 'strong') ?? ('Source Sans 3' as const),
    weight: 'strong' as const,
    size,
  };
  const wide = textWidth(said, setting) / 2 + 2;
  const [across, up] = turn % 180 ? [size * 0.6, wide] : [wide, size * 0.6];
  const matrix = {
    0: [1, 0, 0, 1, x, y - size * 0.35],
    90: [0, -1, 1, 0, x - size * 0.35, y],
    180: [-1, 0, 0, -1, x, y + size * 0.35],
    270: [0, 1, -1, 0, x + size * 0.35, y],
  }[turn as 0] as unknown as Matrix;
  return [
    {
      kind: 'rect',
      box: { x0: x - across, x1: x + across, y0: y - up, y1: y + up },
      ink: WHITE,
      layer: 'marks',
    },
    { kind: 'text', ...setting, text: said, ink: BLACK, align: 'centre', matrix },
  ];
}

/** What a page is called, in the middle of its head half. */
function numberOf({ trim, turn, name }: Cell & PlannedPage): Item[] {
  const [x, y] = [(trim.x0 + trim.x1) / 2, (trim.y0 + trim.y1) / 2];
  const [w, h] = [(trim.x1 - trim.x0) / 4, (trim.y1 - trim.y0) / 4];
  const at = { 0: [x, y + h], 90: [x + w, y], 180: [x, y - h], 270: [x - w, y] }[turn] as [number, number];
  const size = Math.min(NUMBER, Math.min(trim.x1 - trim.x0, trim.y1 - trim.y0) / 3);
  return words(name, size, at[0], at[1], turn);
}

/** A fold with its number and way, beside the end of its line. */
function foldLine({ x0, y0, x1, y1 }: Box, said: string): Item[] {
  const isUpright = y1 - y0 > x1 - x0;
  const at = isUpright ? { x: x0, y: y0 + (y1 - y0) * 0.12 } : { x: x0 + (x1 - x0) * 0.12, y: y0 };
  return [line(x0, y0, x1, y1, THICK, [4, 2, 1, 2]), ...words(said, NOTE, at.x, at.y, isUpright ? 90 : 0)];
}
