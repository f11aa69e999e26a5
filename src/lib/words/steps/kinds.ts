// Written by “npm run kinds”: the files of each kind in this room.
import type { Step } from '../../core/docket/steps';
import type { StepWords } from './stepWords';
import { takeIn } from './takeIn';
import { trim } from './trim';
import { bleed } from './bleed';
import { crop } from './crop';
import { uncrop } from './uncrop';
import { turn } from './turn';
import { straighten } from './straighten';
import { margins } from './margins';
import { format } from './format';
import { piece } from './piece';
import { blank } from './blank';
import { copy } from './copy';
import { move } from './move';
import { remove } from './remove';
import { keep } from './keep';
import { cover } from './cover';
import { panel } from './panel';
import { giveBack } from './giveBack';
import { split } from './split';
import { join } from './join';
import { readingOrder } from './readingOrder';
import { numbers } from './numbers';
import { folio } from './folio';
import { running } from './running';
import { stamp } from './stamp';
import { overlay } from './overlay';
import { set } from './set';
import { ink } from './ink';

export const WORDS: { [Kind in Step['kind']]: StepWords<Kind> } = {
  'take-in': takeIn,
  trim,
  bleed,
  crop,
  uncrop,
  turn,
  straighten,
  margins,
  format,
  piece,
  blank,
  copy,
  move,
  remove,
  keep,
  cover,
  panel,
  'give-back': giveBack,
  split,
  join,
  'reading-order': readingOrder,
  numbers,
  folio,
  running,
  stamp,
  overlay,
  set,
  ink,
};
