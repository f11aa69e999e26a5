import type { OutputFile } from '../wire/told';

/** A file that was made, and where it lies in its folder. */
export interface MadeFile extends OutputFile {
  file: string;
}

/** The list of the files that were made, in their folder: MadeFile[] as JSON. */
export const MADE = 'made.json';
