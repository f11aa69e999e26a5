import { spoken, t } from './language';
import type { FoldError } from '../core/fold/fold';
import type { WorkStyle } from '../core/sheets/pressTerms';
import type { Flat } from '../core/sheets/schemes';

export const WORK_STYLE_NAME: Record<WorkStyle, string> = spoken({
  sheetwise: 'sheetwise',
  'work-and-turn': 'work-and-turn',
  'work-and-tumble': 'work-and-tumble',
  'single-side': 'one side only',
});

/** What a sheet of flat work carries. */
export const ARRANGE_NAME: Record<Flat['arrange'], string> = spoken({
  repeat: 'repeat one',
  sequence: 'in sequence',
  stack: 'cut and stack',
  gang: 'gang all',
});

/** Why paper cannot make a fold, lengths as `say` writes them. */
export function sayFoldError({ code, fold, by, panel }: FoldError, say: (points: number) => string): string {
  const which = t`Fold ${fold + 1}`;
  switch (code) {
    case 'through-panel':
      return t`${which} would crease panel ${panel} where it has no fold.`;
    case 'too-wide':
      return t`${which}: panel ${panel}, folded in before, is ${say(by)} wider than its place and would be creased. It buckles or jams.`;
    case 'nothing-moves':
      return t`${which} has paper on one side only: it lies outside the sheet, or at its edge.`;
    case 'tears':
      return t`${which} would pull apart layers that are joined elsewhere.`;
    case 'no-border':
      return t`${which} has no border left to fold: there is none there, or it is folded already.`;
  }
}
