// Written by “npm run kinds”: the files of each kind in this room.
import type { Scheme } from '../../core/sheets/schemes';
import type { SchemeWords } from './schemeWords';
import { stitched } from './stitched';
import { signatures } from './signatures';
import { leaflet } from './leaflet';
import { flat } from './flat';
import { spreads } from './spreads';
import { single } from './single';
import { none } from './none';

export const WORDS: Record<Scheme['kind'], SchemeWords> = {
  stitched,
  signatures,
  leaflet,
  flat,
  spreads,
  single,
  none,
};
