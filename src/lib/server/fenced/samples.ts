import type { Step } from '../../core/docket/steps';
import { PLAIN_LINES } from '../../core/model/lines';

/**
 * Files on which a standby process for single outputs is warmed up: one like most files, and one with more objects and bytes
 * than are taken in one piece, of which only sheets are made. Pages take more memory, and such a process holds little.
 */
export const SINGLE = [
  { pages: 100, bytes: 26, rounds: 40, outputs: [{ kind: 'sheets' }, { kind: 'pages', crop: 'bleed' }] },
  { pages: 300, bytes: 4000, rounds: 6, outputs: [{ kind: 'sheets' }] },
] as const;
/** The same for rows of files, which are mostly small: how many pages, and how often each is gone through. */
export const ROW = { pages: 40, rounds: 24 } as const;
export const SOURCE = '0'.repeat(64);

export const TAKE_IN: Step = {
  id: 't',
  kind: 'take-in',
  source: SOURCE,
  name: 'sample.pdf',
  where: { at: 'end' },
};
export const BLEED: Step = { id: 'b', kind: 'bleed', pages: 'all', head: 8, foot: 8, spine: 8, fore: 8 };
export const FOLIOS: Step = {
  id: 'f',
  kind: 'folio',
  pages: 'all',
  ...PLAIN_LINES,
  x: 30,
  y: 30,
  edge: 'foot',
  across: 'outer',
  text: '{page}',
};

/** Objects from JSON.parse have other hidden classes than object literals, and code is compiled for each of them. */
export const asItComesIn = <T>(task: T): T => JSON.parse(JSON.stringify(task));
