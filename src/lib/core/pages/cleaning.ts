import * as z from 'zod';

/** What is taken off scans in a copy of their file: the colour of the paper, what shows through from the back, and what lies around the paper. */
export const cleaningSchema = z.object({ paper: z.boolean(), through: z.boolean(), edges: z.boolean() });
export type Cleaning = z.infer<typeof cleaningSchema>;
export const CLEANING: readonly (keyof Cleaning)[] = ['paper', 'through', 'edges'];
/** What is taken off unless somebody says otherwise: pale tints of a print cannot be told from what shows through. */
export const USUAL_CLEANING: Cleaning = { paper: true, through: false, edges: true };
