import type { Scheme } from '../core/sheets/scheme';

/** What each kind of scheme is called. */
export const SCHEME_NAME: Record<Scheme['kind'], string> = {
  stitched: 'stitched booklet',
  none: 'separate pages',
};
