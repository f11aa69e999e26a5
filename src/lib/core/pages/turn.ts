import { sizeBox, type Sides } from '../measure/box';
import { turnMatrix, type Turn } from '../measure/matrix';
import { movePage, withOwn } from './page';
import type { Page } from '../model/page';

/** The page turned clockwise. Bleed that came with a file turns along; bleed by the book's edges stays with those. */
export function turnPage(page: Page, turn: Turn): Page {
  if (turn === 0) return page;
  const { width, height } = page.trim;
  const lies = turn === 180 ? page.trim : { width: height, height: width };
  const moved = movePage(page, turnMatrix(sizeBox(page.trim), turn), lies);
  const turned =
    page.bleed.by === 'side'
      ? { ...moved, bleed: { by: 'side' as const, ...turnSides(page.bleed, turn) } }
      : moved;
  return withOwn(turned, 'trim');
}

/** Lengths at four sides after a clockwise turn: what was at the left comes to the head. */
export function turnSides({ left, right, head, foot }: Sides, turn: Turn): Sides {
  if (turn === 90) return { head: left, right: head, foot: right, left: foot };
  if (turn === 180) return { head: foot, right: left, foot: head, left: right };
  if (turn === 270) return { head: right, right: foot, foot: left, left: head };
  return { left, right, head, foot };
}
