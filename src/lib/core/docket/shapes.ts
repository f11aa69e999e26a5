import * as z from 'zod';
import { distance, lengthWithin, pageLength } from '../measure/lengthSchema';
import { mm } from '../measure/unit';
import type { Edges } from '../model/page';

/** The widest bleed taken: 50 mm, far beyond any use. */
export const MOST_BLEED = mm(50);

/** Bleed as a form begins it: 3 mm all round, by common practice. */
export const PLAIN_BLEED: Edges = { head: mm(3), foot: mm(3), spine: mm(3), fore: mm(3) };
/** Margins and the gap between columns as a form begins them. */
export const PLAIN_MARGINS: Edges = { head: mm(12), foot: mm(15), spine: mm(15), fore: mm(12) };
export const COLUMN_GAP = mm(5);

const edges = (edge: z.ZodNumber) => ({ head: edge, foot: edge, spine: edge, fore: edge });
export const bleedEdges = edges(lengthWithin([0, MOST_BLEED]));
export const cutEdges = edges(distance);
export const marginEdges = cutEdges;
/** Margins from the trim inwards, and the columns between them. */
export const marginsSchema = z.object({
  ...marginEdges,
  columns: z.number().int().min(1).max(40),
  gap: distance,
});
export const sizeSchema = z.object({ width: pageLength, height: pageLength });

/** What is done where the art does not reach the bleed: nothing, mirror it at its edge, or enlarge it until it does. */
export const bleedArtSchema = z.enum(['leave', 'mirror', 'enlarge']);
export type BleedArt = z.infer<typeof bleedArtSchema>;
