import { spoken } from './language';
import type { Stage } from '../core/checks/finding';

/** What each stage is for, in a line. */
export const STAGE_LINE: Readonly<Record<Stage, string>> = spoken({
  'take-in':
    'Here lie the files as they came. Look at their pages, sizes and inks; nothing is changed in them.',
  pages:
    'Here pages get their size, bleed and order. Select some, choose what to do, and see it before you apply it.',
  numbers: 'Here pages get their numbers, running lines and stamps, on a pair of facing pages.',
  sheets:
    'Here pages go on sheets: choose what they become, the paper and the press, and look at both sides.',
  dummy:
    'Here the sheets are cut, folded, bound and trimmed as on the machines. Step through it, and prove it.',
  'hand-over': 'Here the files for the press, the cutter and the customer are made, checked and named.',
});
