import type { Page } from './page';

/** What of a bound book's cover a page is. One piece: its whole outside or inside; else the parts that lie side by side. */
export const COVER_PARTS = [
  'outside',
  'inside',
  'front',
  'spine',
  'back',
  'front-flap',
  'back-flap',
  'inside-front',
  'inside-back',
] as const;
export type CoverPart = (typeof COVER_PARTS)[number];

/** The cover of a bound book, which is no part of the book's page list: its positions and numbers do not move for it. */
export type Cover = Readonly<Partial<Record<CoverPart, Page>>>;
