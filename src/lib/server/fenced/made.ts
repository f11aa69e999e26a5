/** A file that was made: where it lies in its folder, what it is called, and what it holds. */
export interface MadeFile {
  file: string;
  name: string;
  bytes: number;
  /** How many pages it has, where it has pages; the first and the last of them. */
  pages?: number;
  from?: number;
  to?: number;
  /** It alone is larger than was allowed. */
  over?: true;
  /** Its last front has no back. */
  alone?: true;
}

/** The list of the files that were made, in their folder: MadeFile[] as JSON. */
export const MADE = 'made.json';
