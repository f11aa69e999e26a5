import type { Matrix } from '../measure/matrix';

/** A word that was read on a scan: how long it is and how high its letters, in points, and the way from the start of its base line to the page as seen. */
export interface ReadWord {
  text: string;
  width: number;
  size: number;
  matrix: Matrix;
}

/** Words that were read, by their source and page: see `wordsKey`. */
export type ReadWords = ReadonlyMap<string, readonly ReadWord[]>;
export const wordsKey = (source: string, index: number): string => `${source} ${index}`;
