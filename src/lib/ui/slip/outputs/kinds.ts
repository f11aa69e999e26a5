// Written by “npm run kinds”: the files of each kind in this room.
import type { OutputKind } from '../../../core/handover/outputs';
import type { OutputFields } from './outputFields';
import PagesFields from './PagesFields.svelte';
import PressFields from './PressFields.svelte';
import CutterFields from './CutterFields.svelte';

export const FIELDS: { [Kind in OutputKind]: OutputFields<Kind> | 'plain' } = {
  sheets: 'plain',
  pages: PagesFields,
  spreads: 'plain',
  template: 'plain',
  map: 'plain',
  previews: 'plain',
  docket: 'plain',
  ticket: 'plain',
  finishing: 'plain',
  proof: 'plain',
  dummy: 'plain',
  press: PressFields,
  cutter: CutterFields,
};
