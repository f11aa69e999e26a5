// Written by “npm run kinds”: the files of each kind in this room.
import type { OutputKind } from '../../core/handover/outputs';
import type { OutputWords } from './outputWords';
import { sheets } from './sheets';
import { pages } from './pages';
import { spreads } from './spreads';
import { template } from './template';
import { map } from './map';
import { previews } from './previews';
import { docket } from './docket';
import { ticket } from './ticket';
import { finishing } from './finishing';
import { proof } from './proof';
import { dummy } from './dummy';
import { press } from './press';
import { cutter } from './cutter';

export const WORDS: { [Kind in OutputKind]: OutputWords<Kind> } = {
  sheets,
  pages,
  spreads,
  template,
  map,
  previews,
  docket,
  ticket,
  finishing,
  proof,
  dummy,
  press,
  cutter,
};
