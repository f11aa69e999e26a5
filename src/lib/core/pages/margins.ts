import { hasArea, type Box } from '../measure/box';
import { sidesOf } from './page';
import type { Page, Side } from '../model/page';

/** The columns between a page's margins, from left to right, in page space; none if it has no margins. */
export function columnsOf(
  { trim, margins, columns }: Pick<Page, 'trim' | 'margins' | 'columns'>,
  side: Side,
): Box[] {
  if (!margins) return [];
  const { left, right, head, foot } = sidesOf(margins, side);
  const { count, gap } = columns ?? { count: 1, gap: 0 };
  const each = (trim.width - left - right - (count - 1) * gap) / count;
  return Array.from({ length: count }, (_, n) => {
    const x0 = left + n * (each + gap);
    return { x0, x1: x0 + each, y0: foot, y1: trim.height - head };
  });
}

/** Whether margins and columns leave room for anything between them. */
export const leaveRoom = (page: Parameters<typeof columnsOf>[0], side: Side): boolean =>
  columnsOf(page, side).every(hasArea);
