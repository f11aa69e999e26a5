import * as z from 'zod';

/** What every step has: an id that never changes, and whether it is switched off. */
export const stepBase = { id: z.string().min(1).max(64), off: z.literal(true).optional() };
