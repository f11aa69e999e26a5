import * as z from 'zod';

/** Pages selected: typed text, resolved afresh wherever it is used; or ids, which follow those very pages. */
export const selectionSchema = z.union([z.string().max(4000), z.object({ ids: z.array(z.string()) })]);
export type Selection = z.infer<typeof selectionSchema>;
