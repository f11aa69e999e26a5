// Written by “npm run kinds”: the files of each kind in this room.
import type { Scheme } from '../../../core/sheets/schemes';
import type { SchemeFields } from '../schemeDraft.svelte';
import StitchedFields from './StitchedFields.svelte';
import SignaturesFields from './SignaturesFields.svelte';
import LeafletFields from './LeafletFields.svelte';
import FlatFields from './FlatFields.svelte';

export const FIELDS: { [Kind in Scheme['kind']]: SchemeFields<Kind> | 'plain' } = {
  stitched: StitchedFields,
  signatures: SignaturesFields,
  leaflet: LeafletFields,
  flat: FlatFields,
  spreads: 'plain',
  single: 'plain',
  none: 'plain',
};
