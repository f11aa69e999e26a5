import * as z from 'zod';
import { mm } from '../measure/unit';
import { sizeByName } from '../paper/sizes';
import { pageLength } from '../measure/pageLength';

/** How pages go on sheets. *Stitched*: sheets folded once, nested, wire-stitched through the fold. Lengths in points. */
export const stitchedSchema = z.object({
  kind: z.literal('stitched'),
  /** The paper, in either orientation; it is laid so that the spread fits. */
  stock: z.object({ width: pageLength, height: pageLength }),
  /** Edge on which the press or duplexer turns the sheet. */
  turn: z.enum(['short-edge', 'long-edge']),
  /** Space between the two pages at the fold, half on each side. */
  gap: z.number().min(0).max(14_400),
  /** Where blanks go that fill the last sheet. */
  pad: z.enum(['before-last', 'end']),
  marks: z.object({ trim: z.boolean(), fold: z.boolean() }),
});
export type Stitched = z.infer<typeof stitchedSchema>;

/** A job whose pages go on no sheets here: separate pieces, or files for a screen. */
export const schemeSchema = z.discriminatedUnion('kind', [
  stitchedSchema,
  z.object({ kind: z.literal('none') }),
]);
export type Scheme = z.infer<typeof schemeSchema>;

const sra3 = sizeByName('SRA3')!;
export const DEFAULT_SCHEME: Stitched = {
  kind: 'stitched',
  stock: { width: sra3.width, height: sra3.height },
  turn: 'short-edge',
  gap: 0,
  pad: 'before-last',
  marks: { trim: true, fold: true },
};

/** Printer's marks: each line's length, and its least distance from the trim (it also keeps clear of the bleed). By practice. */
export const MARK_LENGTH = mm(5);
export const MARK_OFFSET = mm(3);
