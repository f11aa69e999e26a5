import { edgesOf } from '../fold/fold';
import { grow, shift, type Box, type Size } from '../measure/box';
import { formatSize } from '../measure/formatLength';
import { mm, type Unit } from '../measure/unit';
import { BLACK, type Colour } from '../ink/colour';
import { markLine, type Item } from '../model/surface';
import type { PageList } from '../model/page';
import { foldLines, leafletSheet } from './leaflet';
import { foldBehind, type FoldLine } from './forme';
import { plainPlan, type Sheet, type SheetPlan } from './plan';
import type { Leaflet } from './settings/leaflet';
import { entryAt, firstOf, lastOf, both } from '../entries';

/** One side of a blank template: boxes in points from the lower left corner of its paper. */
export interface TemplateSide {
  name: 'outside' | 'inside';
  size: Size;
  trim: Box;
  bleed: Box;
  /** What is safe in each panel: clear of trim and folds. */
  safe: readonly Box[];
  folds: readonly FoldLine[];
}

/** Bleed of a template, and paper around it, by practice. */
const BLEED = mm(3);
const AROUND = mm(10);
/** Of its lines, in points. */
const WEIGHT = 0.35;

/** The two sides of a leaflet for a designer to fill: the outside, and the inside turned over about a vertical axis. Undefined for an empty list. */
export function templateOf(list: PageList, scheme: Leaflet, safe: number): TemplateSide[] | undefined {
  const sheet = leafletSheet(list, scheme);
  if (!sheet) return undefined;
  const folds = foldLines(sheet);
  const [width, height] = both([sheet.columns, sheet.rows], (lengths) => lastOf(edgesOf(lengths)));
  const off = BLEED + AROUND;
  const trim: Box = { x0: off, y0: off, x1: off + width, y1: off + height };
  const inset = { left: -safe, right: -safe, head: -safe, foot: -safe };
  const side = (
    name: TemplateSide['name'],
    columns: readonly number[],
    lines: readonly FoldLine[],
  ): TemplateSide => {
    const [xs, ys] = [edgesOf(columns), edgesOf(sheet.rows)];
    return {
      name,
      size: { width: width + 2 * off, height: height + 2 * off },
      trim,
      bleed: grow(trim, { left: BLEED, right: BLEED, head: BLEED, foot: BLEED }),
      safe: sheet.rows.flatMap((_, row) =>
        columns.map((_, column) =>
          shift(
            grow(
              {
                x0: entryAt(xs, column),
                x1: entryAt(xs, column + 1),
                y0: entryAt(ys, row),
                y1: entryAt(ys, row + 1),
              },
              inset,
            ),
            off,
            off,
          ),
        ),
      ),
      folds: lines.map((line) => ({ ...line, at: line.at + off, from: line.from + off, to: line.to + off })),
    };
  };
  return [
    side('outside', sheet.columns, folds),
    side(
      'inside',
      [...sheet.columns].reverse(),
      folds.map((line) => foldBehind(line, width)),
    ),
  ];
}

const INKS: Record<'trim' | 'bleed' | 'safe' | 'fold', Colour> = {
  trim: BLACK,
  bleed: { as: 'process', c: 0, m: 0.9, y: 0.7, k: 0 },
  safe: { as: 'process', c: 0.8, m: 0, y: 0.8, k: 0 },
  fold: { as: 'process', c: 0.9, m: 0.3, y: 0, k: 0 },
};
const DASHES = { trim: [], bleed: [], safe: [2, 2], valley: [6, 3], mountain: [8, 2, 1, 2] } as const;

/** The template as sheets without pages, to be written like any others. */
export function templatePlan(sides: readonly TemplateSide[], unit: Unit): SheetPlan {
  const sheets = sides.map((side): Sheet => ({
    size: side.size,
    name: side.name,
    front: { cells: [], lines: [], marks: linesOf(side, unit) },
  }));
  const { size, trim } = firstOf(sides);
  const cell = { width: trim.x1 - trim.x0, height: trim.y1 - trim.y0 };
  return plainPlan(sheets, {
    cell,
    needed: { trims: cell, bleeds: cell, marks: size },
    piecesOn: (index) => [entryAt(sides, index).trim],
    pieceArea: cell.width * cell.height,
  });
}

function linesOf(side: TemplateSide, unit: Unit): Item[] {
  const line = (x0: number, y0: number, x1: number, y1: number, ink: Colour, dash: readonly number[]) =>
    markLine({ x0, y0, x1, y1 }, WEIGHT, { ink, dash });
  const frame = ({ x0, y0, x1, y1 }: Box, kind: 'trim' | 'bleed' | 'safe') =>
    (
      [
        [x0, y0, x1, y0],
        [x1, y0, x1, y1],
        [x1, y1, x0, y1],
        [x0, y1, x0, y0],
      ] as const
    ).map((ends) => line(...ends, INKS[kind], DASHES[kind]));
  const { width, height } = { width: side.trim.x1 - side.trim.x0, height: side.trim.y1 - side.trim.y0 };
  return [
    ...frame(side.bleed, 'bleed'),
    ...frame(side.trim, 'trim'),
    ...side.safe.flatMap((box) => frame(box, 'safe')),
    ...side.folds.map(({ axis, at, from, to, way }) =>
      axis === 'vertical'
        ? line(at, from, at, to, INKS.fold, DASHES[way ?? 'mountain'])
        : line(from, at, to, at, INKS.fold, DASHES[way ?? 'mountain']),
    ),
    {
      kind: 'text',
      face: 'Source Sans 3',
      weight: 'regular',
      size: 7,
      text: `${side.name} · trim ${formatSize(width, height, unit)} · red bleed, black trim, green safe area, blue folds`,
      ink: BLACK,
      align: 'left',
      matrix: [1, 0, 0, 1, side.trim.x0, side.bleed.y1 + 6],
    },
  ];
}

/** A side as SVG, in millimetres, its parts in groups by name. */
export function templateSvg({ size, trim, bleed, safe, folds, name }: TemplateSide): string {
  const figure = (points: number) => String(Math.round((points / mm(1)) * 1000) / 1000);
  const rect = ({ x0, y0, x1, y1 }: Box) =>
    `<rect x="${figure(x0)}" y="${figure(size.height - y1)}" width="${figure(x1 - x0)}" height="${figure(y1 - y0)}"/>`;
  const group = (id: string, stroke: string, dash: string, inner: readonly string[]) =>
    `<g id="${id}" fill="none" stroke="${stroke}" stroke-width="0.12"${dash ? ` stroke-dasharray="${dash}"` : ''}>${inner.join('')}</g>`;
  const fold = ({ axis, at, from, to, way = 'mountain' }: FoldLine) => {
    const [[x1, x2], [y1, y2]] =
      axis === 'vertical'
        ? ([
            [at, at],
            [from, to],
          ] as const)
        : ([
            [from, to],
            [at, at],
          ] as const);
    return `<line class="${way}" x1="${figure(x1)}" y1="${figure(size.height - y1)}" x2="${figure(x2)}" y2="${figure(size.height - y2)}"/>`;
  };
  const [width, height] = [figure(size.width), figure(size.height)];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}"><title>${name}</title>`,
    group('bleed', '#d03030', '', [rect(bleed)]),
    group('trim', '#000', '', [rect(trim)]),
    group('safe', '#2a8a3a', '0.7 0.7', safe.map(rect)),
    group('folds', '#1f6fb0', '2.8 0.7 0.35 0.7', folds.map(fold)),
    '</svg>',
  ].join('\n');
}
