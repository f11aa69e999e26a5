import type { Box } from '../measure/box';
import type { Matrix } from '../measure/matrix';

/** What a page shows: a page of a source, placed. */
export interface Art {
  source: string;
  /** Page of the source, from 0. */
  index: number;
  /** From the source page as seen (see SurveyPage) to page space: origin at the trim's lower left corner. */
  place: Matrix;
  /** The part of the source page that is art, as seen: beyond it there is nothing, or printer's marks. */
  reach: Box;
  /** The source page draws nothing. */
  empty?: true;
  /** The source page was cut up: what lies beyond the reach is another page's. */
  cut?: true;
}
