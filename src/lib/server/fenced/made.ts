import type { CutBy } from '../../core/handover/output';
import type { Size } from '../../core/measure/box';

/** A file that was made: where it lies in its folder, what it is called, and what it holds. */
export interface MadeFile {
  file: string;
  name: string;
  bytes: number;
  /** How many pages it has, where it has pages; the first and the last of them. */
  pages?: number;
  from?: number;
  to?: number;
  /** What a stand-in shows: how large it is in points. */
  size?: Size;
  /** Which side of a sheet it shows; upside down where the press turned the sheet otherwise than it was laid for. */
  side?: 'front' | 'back';
  upsideDown?: true;
  /** Paths of a tool: what it followed, how far it goes, in points, and how many pieces come loose. */
  cut?: { by: CutBy; length: number; pieces: number };
  /** It alone is larger than was allowed. */
  over?: true;
  /** Its last front has no back. */
  alone?: true;
}

/** The list of the files that were made, in their folder: MadeFile[] as JSON. */
export const MADE = 'made.json';
