import type { FoldName } from '../core/fold/patterns';
import type { FoldError } from '../core/fold/fold';
import type { Flat, Scheme, WorkStyle } from '../core/sheets/scheme';

/** What each kind of scheme is called. */
export const SCHEME_NAME: Record<Scheme['kind'], string> = {
  stitched: 'stitched booklet',
  signatures: 'book in signatures',
  leaflet: 'folded leaflet',
  flat: 'flat work',
  spreads: 'reader spreads',
  single: 'single pages with marks',
  none: 'separate pages',
};

/** What the pages become, said to somebody who has to choose. */
export const SCHEME_SAID: Record<Scheme['kind'], string> = {
  stitched: 'Sheets folded and nested, wire-stitched through the fold.',
  signatures: 'Folded sheets gathered one after another, glued or sewn at the spine.',
  leaflet: 'One sheet folded in any way. Pages are its two sides, or its panels.',
  flat: 'Pieces side by side on a sheet, cut apart: cards, tickets, slips.',
  spreads: 'Facing pages side by side, as a reader meets them: for a proof or a screen.',
  single: 'Each page by itself, with its bleed and marks.',
  none: 'Each page goes out by itself, at its own size: pieces of stationery, or files for a screen.',
};

export const WORK_STYLE_NAME: Record<WorkStyle, string> = {
  sheetwise: 'sheetwise',
  'work-and-turn': 'work-and-turn',
  'work-and-tumble': 'work-and-tumble',
  'single-side': 'one side only',
};

/** What a sheet of flat work carries. */
export const ARRANGE_NAME: Record<Flat['arrange'], string> = {
  repeat: 'repeat one',
  sequence: 'in sequence',
  stack: 'cut and stack',
  gang: 'gang all',
};

export const FOLD_NAME: Record<FoldName, string> = {
  half: 'half fold',
  letter: 'letter fold',
  accordion: 'accordion fold',
  roll: 'roll fold',
  gate: 'gatefold',
  'closed-gate': 'closed gatefold',
  'double-parallel': 'double parallel fold',
  french: 'French fold',
  'right-angle': 'right-angle fold',
  map: 'map fold',
  own: 'own folds',
};

/** Why paper cannot make a fold, lengths as `say` writes them. */
export function sayFoldError({ code, fold, by, panel }: FoldError, say: (points: number) => string): string {
  const which = `Fold ${fold + 1}`;
  switch (code) {
    case 'through-panel':
      return `${which} would crease panel ${panel} where it has no fold.`;
    case 'too-wide':
      return `${which}: panel ${panel}, folded in before, is ${say(by)} wider than its place and would be creased. It buckles or jams.`;
    case 'nothing-moves':
      return `${which} has paper on one side only: it lies outside the sheet, or at its edge.`;
    case 'tears':
      return `${which} would pull apart layers that are joined elsewhere.`;
    case 'no-border':
      return `${which} has no border left to fold: there is none there, or it is folded already.`;
  }
}
