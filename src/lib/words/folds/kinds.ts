// Written by “npm run kinds”: the files of each kind in this room.
import type { FoldName } from '../../core/fold/patterns';
import type { FoldWords } from './foldWords';
import { half } from './half';
import { letter } from './letter';
import { accordion } from './accordion';
import { roll } from './roll';
import { gate } from './gate';
import { closedGate } from './closedGate';
import { doubleParallel } from './doubleParallel';
import { french } from './french';
import { rightAngle } from './rightAngle';
import { map } from './map';
import { own } from './own';

export const WORDS: Record<FoldName, FoldWords> = {
  half,
  letter,
  accordion,
  roll,
  gate,
  'closed-gate': closedGate,
  'double-parallel': doubleParallel,
  french,
  'right-angle': rightAngle,
  map,
  own,
};
