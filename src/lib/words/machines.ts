import { spoken } from './language';
import type { CutBy, PressTurn } from '../core/handover/machines';

/** How a press turns sheets for their backs. */
export const TURN_SAID: Record<PressTurn, string> = spoken({
  'short-edge': 'turned on the short edge',
  'long-edge': 'turned on the long edge',
  'one-side': 'one side only',
});

/** What comes of it where a press does not print as the sheets were planned. */
export const PRESS_MISTAKE = spoken({
  'one-side':
    'Printed on one side, every back comes out on a sheet of its own: the leaves stay white behind, and nothing folds or cuts into the work.',
  'other-edge': 'Turned about the other edge, every back comes out upside down behind its front.',
} as const);

/** What a cutter follows: `layer Cutting`. */
export const sayCutBy = ({ what, name }: CutBy): string => `${what} ${name}`;
