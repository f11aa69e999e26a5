import * as z from 'zod';

export const WORK_STYLES = ['sheetwise', 'work-and-turn', 'work-and-tumble', 'single-side'] as const;
export type WorkStyle = (typeof WORK_STYLES)[number];
export const LAYS = ['centre', 'left', 'right'] as const;

/** A cell by its number on a side, row by row from the head, as the sheet map counts them; all from 1. */
const cellAtSchema = z.object({
  sheet: z.number().int().min(1).max(100_000),
  side: z.enum(['front', 'back']),
  cell: z.number().int().min(1).max(10_000),
});
export type CellAt = z.infer<typeof cellAtSchema>;

/** A change to what the scheme put in a cell. */
export const byHandSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('turn'), at: cellAtSchema }),
  z.object({ do: z.literal('leave-out'), at: cellAtSchema }),
  z.object({ do: z.literal('swap'), at: cellAtSchema, with: cellAtSchema }),
]);
export type ByHand = z.infer<typeof byHandSchema>;
