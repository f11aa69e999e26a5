import { backSide, frontSide, sideOf } from './page';
import type { Book, Side } from '../model/page';

/** What a reader has open at once: indexes into the page list, from 0, by the side that they lie on. */
export type Spread = Partial<Record<Side, number>>;

/** The page list as a reader meets it, spread by spread. */
export function spreadsOf(pageCount: number, book: Book): Spread[] {
  const spreads: Spread[] = [];
  const [front, back] = [frontSide(book), backSide(book)];
  for (let index = 0; index < pageCount; index++) {
    const side = sideOf(index, book);
    const open = spreads.at(-1);
    // The back of one leaf is met first, then the front of the next.
    if (book.facing && side === front && open?.[back] !== undefined && open[front] === undefined)
      open[front] = index;
    else spreads.push({ [side]: index });
  }
  return spreads;
}

/** The leaf of the page at `index`: its number from 1 and which of its two faces the page is. */
export function leafOf(index: number, book: Book): { leaf: number; face: 'front' | 'back' } {
  if (!book.facing) return { leaf: index + 1, face: 'front' };
  const offset = book.first === frontSide(book) ? 0 : 1;
  return {
    leaf: Math.floor((index + offset) / 2) + 1,
    face: sideOf(index, book) === frontSide(book) ? 'front' : 'back',
  };
}
