import * as z from 'zod';

const share = z.number().min(0).max(1);

/** What text and lines are printed in: process inks, a tint of a spot ink with the process mix that stands for it elsewhere, or grey. Shares from 0 to 1. */
export const colourSchema = z.discriminatedUnion('as', [
  z.object({ as: z.literal('process'), c: share, m: share, y: share, k: share }),
  z.object({
    as: z.literal('spot'),
    name: z.string().trim().min(1).max(120),
    tint: share,
    mix: z.tuple([share, share, share, share]),
  }),
  z.object({ as: z.literal('grey'), black: share }),
]);
export type Colour = z.infer<typeof colourSchema>;

/** Black process ink alone. */
export const BLACK: Colour = { as: 'process', c: 0, m: 0, y: 0, k: 1 };

/** The process mix of a colour. */
export function mixOf(colour: Colour): readonly [number, number, number, number] {
  if (colour.as === 'process') return [colour.c, colour.m, colour.y, colour.k];
  if (colour.as === 'grey') return [0, 0, 0, colour.black];
  const [c, m, y, k] = colour.mix;
  const { tint } = colour;
  return [c * tint, m * tint, y * tint, k * tint];
}
