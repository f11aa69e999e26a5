// Written by “npm run kinds”: the files of each kind in this room.
import type { CHECKS } from '../../core/checks';
import type { CheckWords } from './checkWords';
import { steps } from './steps';
import { files } from './files';
import { active } from './active';
import { pairs } from './pairs';
import { keptPairs } from './keptPairs';
import { scans } from './scans';
import { sizes } from './sizes';
import { panels } from './panels';
import { bleed } from './bleed';
import { drawn } from './drawn';
import { lines } from './lines';
import { inks } from './inks';
import { faces } from './faces';
import { sheets } from './sheets';
import { folds } from './folds';
import { cover } from './cover';

export const WORDS: { [Kind in (typeof CHECKS)[number]['kind']]: CheckWords<Kind> } = {
  steps,
  files,
  active,
  pairs,
  'kept-pairs': keptPairs,
  scans,
  sizes,
  panels,
  bleed,
  drawn,
  lines,
  inks,
  faces,
  sheets,
  folds,
  cover,
};
