// Written by “npm run kinds”: the files of each kind in this room.
import type { MarkName } from '../../core/sheets/marks';
import type { MarkWords } from './markWords';
import { trim } from './trim';
import { fold } from './fold';
import { centre } from './centre';
import { registration } from './registration';
import { bar } from './bar';
import { paths } from './paths';
import { slug } from './slug';

export const WORDS: Record<MarkName, MarkWords> = {
  trim,
  fold,
  centre,
  registration,
  bar,
  paths,
  slug,
};
