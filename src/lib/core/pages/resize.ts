import * as z from 'zod';
import type { Size } from '../measure/box';
import { compose, translate, type Matrix } from '../measure/matrix';
import { movePage, withOwn } from './page';
import type { Page, Side } from '../model/page';

/** What the content does when the trim size changes: keeps its real size, fits inside, covers, or follows both edges. */
export const contentSchema = z.enum(['hold', 'fit', 'fill', 'stretch']);
export type Content = z.infer<typeof contentSchema>;

/** The point of the page that stays put when its size changes; spine and fore edge mirror on left-hand pages. */
export const fixedPointSchema = z.object({
  x: z.enum(['left', 'centre', 'right', 'spine', 'fore']),
  y: z.enum(['head', 'centre', 'foot']),
});
export type FixedPoint = z.infer<typeof fixedPointSchema>;
/** The middle of the page stays. */
export const CENTRE = { x: 'centre', y: 'centre' } as const satisfies FixedPoint;

/** How a page is brought to a new size. */
export interface Resize {
  content: Content;
  fixed: FixedPoint;
  /** Margins and the gap between columns grow and shrink with the content; else they keep their lengths. */
  scaleMargins?: boolean | undefined;
  /** Folios and running lines grow and shrink with the content, their distances too; else they keep their size. */
  scaleLines?: boolean | undefined;
}

/** The page at a new trim size. Bleed never scales. */
export function resizePage(
  page: Page,
  size: Size,
  { content, fixed, scaleMargins, scaleLines }: Resize,
  side: Side,
): Page {
  const by = contentScale(page.trim, size, content);
  let moved = movePage(page, resizeMatrix(page.trim, size, content, fixed, side), size);
  if (scaleMargins) moved = withScaledMargins(moved, by);
  if (scaleLines) moved = withScaledLines(moved, by);
  return withOwn(moved, 'trim');
}

/** Letters keep their shape: where the content is stretched, they follow its smaller scale. */
const withScaledLines = ({ lines, ...page }: Page, by: [number, number]): Page => ({
  ...page,
  ...(lines ? { lines: lines.map((each) => ({ ...each, scale: (each.scale ?? 1) * Math.min(...by) })) } : {}),
});

const withScaledMargins = (page: Page, [x, y]: [number, number]): Page => {
  const { margins: m, columns } = page;
  return {
    ...page,
    ...(m ? { margins: { head: m.head * y, foot: m.foot * y, spine: m.spine * x, fore: m.fore * x } } : {}),
    ...(columns ? { columns: { ...columns, gap: columns.gap * x } } : {}),
  };
};

/** What moves page content when `from` becomes `to`: a scale (1 for *hold*) about the fixed point. */
export function resizeMatrix(from: Size, to: Size, content: Content, fixed: FixedPoint, side: Side): Matrix {
  const [sx, sy] = contentScale(from, to, content);
  const { fx, fy } = fixedFractions(fixed, side);
  const about = translate(-fx * from.width, -fy * from.height);
  return compose(compose(about, [sx, 0, 0, sy, 0, 0]), translate(fx * to.width, fy * to.height));
}

/** Horizontal and vertical scale of the content. */
export function contentScale(from: Size, to: Size, content: Content): [number, number] {
  const [x, y] = [to.width / from.width, to.height / from.height];
  if (content === 'hold') return [1, 1];
  if (content === 'stretch') return [x, y];
  const both = content === 'fit' ? Math.min(x, y) : Math.max(x, y);
  return [both, both];
}

function fixedFractions(fixed: FixedPoint, side: Side): { fx: number; fy: number } {
  const spine = { right: 0, left: 1, lower: 1, upper: 0 }[side];
  const across = { left: 0, centre: 0.5, right: 1, spine, fore: 1 - spine }[fixed.x];
  const up = { head: 1, centre: 0.5, foot: 0 }[fixed.y];
  // Bound at the head, the book lies turned: along the spine is across, and its head is at the right.
  const turned = (side === 'upper' || side === 'lower') && (fixed.x === 'spine' || fixed.x === 'fore');
  return turned ? { fx: up, fy: across } : { fx: across, fy: up };
}
