import * as z from 'zod';
import type { Size } from '../measure/box';
import { offset } from '../measure/lengthSchema';
import type { Art } from './art';

/** What an overlay is for; all but printing are processing steps of ISO 19593-1. */
export const PURPOSES = ['printing', 'cutting', 'creasing', 'perforating'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** A layer of the output, which can be told from the artwork. */
export interface Layer {
  name: string;
  purpose: Purpose;
  /** It neither shows nor prints until somebody turns it on. */
  hidden?: true;
}

/** The corner, edge or middle of a page that a graphic is placed from: outer and inner mirror with the leaf. */
export const placingSchema = z.object({
  box: z.enum(['trim', 'bleed', 'margin']),
  x: z.enum(['outer', 'inner', 'left', 'centre', 'right']),
  y: z.enum(['head', 'centre', 'foot']),
  /** Inwards from there, in points; from the middle towards the fore edge and the head. */
  dx: offset,
  dy: offset,
  /** Clockwise, in degrees. */
  turn: z.number().min(-360).max(360),
});
export type Placing = z.infer<typeof placingSchema>;

/** A part of a source laid over or under a page: a stamp or an overlay. */
export interface Laid {
  step: string;
  /** What it shows; each place leads to the graphic's own space, its lower left corner the origin. */
  arts: readonly Art[];
  size: Size;
  placing: Placing;
  /** Scale across and up. */
  scale: readonly [x: number, y: number];
  /** From 0 to 1; opaque if missing. */
  opacity?: number;
  behind?: true;
  layer?: Layer;
  /** Its inks print over what lies under them instead of knocking it out. */
  overprint?: true;
}
