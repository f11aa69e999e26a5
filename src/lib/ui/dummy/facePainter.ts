import { heightOf, overlap, widthOf, type Box, type Size } from '../../core/measure/box';
import { PLAIN_ERRORS, type MachineErrors } from '../../core/finish/errors';
import {
  applyToBox,
  applyToPoint,
  compose,
  invert,
  translate,
  turnOver,
  type Matrix,
} from '../../core/measure/matrix';
import type { Page } from '../../core/model/page';
import type { ArtItem, Item, TextItem } from '../../core/model/surface';
import { advancesOf, textWidth } from '../../core/numbers/faceMetrics';
import type { SheetPlan, SheetSide } from '../../core/sheets/plan';
import { sheetSurface } from '../../core/sheets/sheetSurface';
import { screenColor } from '../mat/ink';

/** A part of a face of a sheet, as the front is seen; backs as they would be seen through the paper. */
export interface Face {
  sheet: number;
  face: 'front' | 'back';
  flat: Box;
}
export const faceKey = ({ sheet, face, flat: { x0, y0, x1, y1 } }: Face): string =>
  [sheet, face, ...[x0, y0, x1, y1].map((at) => at.toFixed(2))].join(' ');

/** One side of a sheet that is printed, and the way from it to the front of the sheet, through the paper for a back. */
export interface PrintedFace {
  drawn: SheetSide;
  size: Size;
  items: readonly Item[];
  through: Matrix;
}

const known = new WeakMap<SheetSide, readonly Item[]>();
/** What is printed on a face of a sheet (from 1), by a press that errs so; nothing if it stays white. */
export function printedFace(
  plan: SheetPlan,
  { sheet, face }: Pick<Face, 'sheet' | 'face'>,
  { register, turned }: Pick<MachineErrors, 'register' | 'turned'> = PLAIN_ERRORS,
): PrintedFace | undefined {
  const laid = plan.sheets[sheet - 1];
  const drawn = laid?.[face];
  if (!laid || !drawn) return undefined;
  const { size } = laid;
  const of = sheet > plan.sheetCount ? (plan.cover?.plan ?? plan) : plan;
  const items = known.get(drawn) ?? sheetSurface(drawn, size, of.weight).items;
  known.set(drawn, items);
  return {
    drawn,
    size,
    items,
    through: throughOf(face, size, (of.turnAxis === 'vertical') !== turned, register),
  };
}

/** From a side of a sheet to its front, through the paper. */
function throughOf(
  face: 'front' | 'back',
  { width, height }: Size,
  isUpright: boolean,
  register: number,
): Matrix {
  if (face === 'front') return [1, 0, 0, 1, 0, 0];
  const over = isUpright ? turnOver('vertical', width / 2) : turnOver('horizontal', height / 2);
  return compose(over, translate(register, register));
}

/** The page of the job that is met at a place of a sheet. */
export function pageAt(printed: PrintedFace, x: number, y: number): Page | undefined {
  const at = applyToPoint(invert(printed.through), x, y);
  const cell = printed.drawn.cells.find(
    ({ trim }) => at.x >= trim.x0 && at.x <= trim.x1 && at.y >= trim.y0 && at.y <= trim.y1,
  );
  return cell?.page;
}

/** What is printed on a part of a face, by names, the larger part of each page being there. */
export const namesOn = ({ drawn, through }: PrintedFace, flat: Box): string[] =>
  drawn.cells.flatMap(({ trim, name, page }) => {
    const lies = applyToBox(through, trim);
    const [x, y] = [(lies.x0 + lies.x1) / 2, (lies.y0 + lies.y1) / 2];
    return page && x > flat.x0 && x < flat.x1 && y > flat.y0 && y < flat.y1 ? [name] : [];
  });

/** Where a page of the job is printed: its sheet, the face, and the part of it as the front is seen. */
export function printedAt(plan: SheetPlan, id: string): Face | undefined {
  for (const [n] of plan.sheets.entries())
    for (const face of ['front', 'back'] as const) {
      const printed = printedFace(plan, { sheet: n + 1, face });
      const cell = printed?.drawn.cells.find(({ page }) => page?.id === id);
      if (printed && cell) return { sheet: n + 1, face, flat: applyToBox(printed.through, cell.trim) };
    }
  return undefined;
}

/** The art that a part of a face shows. */
export const artOn = ({ items, through }: PrintedFace, flat: Box): ArtItem[] =>
  items.flatMap((item) =>
    item.kind === 'art' && overlap(applyToBox(through, item.clip), flat) ? [item] : [],
  );

const PAPER = '#fbfaf5';
const WAITING = '#f1eee4';
const BANDS = [
  { color: '#1d2422', line: 6 },
  { color: '#f2c230', line: 3.5 },
];

/** Paints a part of a face, `k` pixels a point: as much of it as there are pictures for, and an outline round pages that are selected. */
export function paintFace(
  canvas: HTMLCanvasElement,
  printed: PrintedFace | undefined,
  flat: Box,
  k: number,
  pictureOf: (art: ArtItem) => { image: CanvasImageSource; size: Size } | undefined,
  selected: ReadonlySet<string>,
): void {
  const ctx = canvas.getContext('2d');
  if (!ctx) return;
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  ctx.fillStyle = PAPER;
  ctx.fillRect(0, 0, canvas.width, canvas.height);
  if (!printed) return;
  ctx.setTransform(k, 0, 0, -k, -flat.x0 * k, flat.y1 * k);
  ctx.transform(...printed.through);
  for (const item of printed.items) paintItem(ctx, item, pictureOf);
  for (const { page, trim } of printed.drawn.cells)
    if (page && selected.has(page.id))
      for (const { color, line } of BANDS) {
        ctx.strokeStyle = color;
        ctx.lineWidth = line / k;
        const by = 3 / k;
        ctx.strokeRect(trim.x0 + by, trim.y0 + by, widthOf(trim) - 2 * by, heightOf(trim) - 2 * by);
      }
}

function paintItem(
  ctx: CanvasRenderingContext2D,
  item: Item,
  pictureOf: (art: ArtItem) => { image: CanvasImageSource; size: Size } | undefined,
): void {
  ctx.save();
  if (item.kind === 'art') paintArt(ctx, item, pictureOf(item));
  else if (item.kind === 'text') paintText(ctx, item);
  else if (item.kind === 'rect') {
    ctx.fillStyle = inkOf(item.ink);
    ctx.fillRect(item.box.x0, item.box.y0, widthOf(item.box), heightOf(item.box));
  } else {
    ctx.strokeStyle = inkOf(item.ink);
    ctx.lineWidth = Math.max(0.3, item.width);
    ctx.beginPath();
    if (item.kind === 'circle') ctx.arc(item.x, item.y, item.radius, 0, 2 * Math.PI);
    else if (item.layer !== 'cut-path' && item.layer !== 'fold-path') {
      ctx.setLineDash([...item.dash]);
      ctx.moveTo(item.x0, item.y0);
      ctx.lineTo(item.x1, item.y1);
    }
    ctx.stroke();
  }
  ctx.restore();
}

const inkOf = (ink: Parameters<typeof screenColor>[0] | 'all'): string =>
  ink === 'all' ? '#1d2422' : screenColor(ink);

function clipTo(ctx: CanvasRenderingContext2D, box: Box): void {
  ctx.beginPath();
  ctx.rect(box.x0, box.y0, widthOf(box), heightOf(box));
  ctx.clip();
}

function paintArt(
  ctx: CanvasRenderingContext2D,
  { clip, matrix, laid }: ArtItem,
  picture: { image: CanvasImageSource; size: Size } | undefined,
): void {
  clipTo(ctx, clip);
  if (!picture) {
    if (laid) return;
    ctx.fillStyle = WAITING;
    ctx.fillRect(clip.x0, clip.y0, widthOf(clip), heightOf(clip));
    return;
  }
  ctx.transform(...matrix);
  if (laid) {
    clipTo(ctx, laid.reach);
    ctx.globalAlpha = laid.opacity ?? 1;
    if (laid.overprint) ctx.globalCompositeOperation = 'multiply';
  }
  ctx.transform(1, 0, 0, -1, 0, picture.size.height);
  ctx.drawImage(picture.image, 0, 0, picture.size.width, picture.size.height);
}

/** Letter by letter, where the PDF has them. */
function paintText(ctx: CanvasRenderingContext2D, item: TextItem): void {
  ctx.transform(...item.matrix);
  ctx.scale(1, -1);
  ctx.fillStyle = screenColor(item.ink);
  ctx.font = fontOf(item);
  let x = -{ left: 0, centre: 0.5, right: 1 }[item.align] * textWidth(item.text, item);
  const advances = advancesOf(item.text, item);
  [...item.text].forEach((letter, n) => {
    ctx.fillText(letter, x, 0);
    x += advances[n] ?? 0;
  });
}

/** The font of a line of text, as canvases and the page's fonts are told. */
export const fontOf = ({ weight, size, face }: TextItem): string =>
  `${weight === 'strong' ? 600 : 400} ${size}px '${face}'`;
