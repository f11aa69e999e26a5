import type { Box } from '../measure/box';
import type { Matrix } from '../measure/matrix';
import type { SurveyPage } from './survey';

/** A page of a source as a page of a written file draws it. */
export interface Draw {
  /** What tells its content from that of others, as `contents` of a survey has it. */
  content: number;
  /** From the source page's own user space to where it is drawn. */
  matrix: Matrix;
  /** What it is seen through, where it is drawn; all of the page if missing. */
  clip?: Box | undefined;
}

/** What a written page shows besides its boxes: pages of sources, in their order, and how many lines of text that were put there. */
export interface Shown {
  draws: readonly Draw[];
  texts: number;
}

/** A page of a file that was written here, read again. */
export interface WrittenPage extends Pick<SurveyPage, 'boxes' | 'toUpright' | 'label' | 'incomplete'> {
  /** Missing where nobody looked for it. */
  shown?: Shown | undefined;
}
/** A file that was written here, read again. */
export interface Written {
  pages: readonly WrittenPage[];
  /** The names of its spot inks. */
  spots: readonly string[];
}
