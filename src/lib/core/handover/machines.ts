import * as z from 'zod';

/** The edge about which a press turns a sheet for its back; or it prints one side of each and turns none. */
export const PRESS_TURNS = ['short-edge', 'long-edge', 'one-side'] as const;
export type PressTurn = (typeof PRESS_TURNS)[number];
/** What a cutter follows: what is drawn in an ink, or on a layer. */
export const cutBySchema = z.object({ what: z.enum(['ink', 'layer']), name: z.string().min(1).max(200) });
export type CutBy = z.infer<typeof cutBySchema>;
