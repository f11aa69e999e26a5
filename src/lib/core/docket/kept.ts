import * as z from 'zod';
import { ownPatternSchema } from '../fold/patterns';
import { stockSchema } from '../paper/stock';

/** What a preparer keeps under a name, for every job: papers, and folds of their own. */
export const KEPT = { paper: stockSchema, folds: ownPatternSchema } as const;
export type KeptKind = keyof typeof KEPT;
export interface Kept<Kind extends KeptKind> {
  name: string;
  settings: z.infer<(typeof KEPT)[Kind]>;
}
/** A name to keep something under. */
export const keptNameSchema = z.string().trim().min(1).max(60);
