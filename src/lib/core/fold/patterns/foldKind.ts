import type * as z from 'zod';
import type { Pattern } from '../folding';

/** Every choice of a fold has at least its name. */
export type FoldSchema = z.ZodObject<{ fold: z.ZodLiteral<string> }>;

/** One way to fold a leaflet. The front of the sheet is the outside of the folded piece. */
export interface FoldKind<Schema extends FoldSchema> {
  kind: z.infer<Schema>['fold'];
  /** Its name as `fold`, and what can be chosen of it. */
  schema: Schema;
  /** As it begins; `from` is the fold that is there, with the lengths of its panels where they are known. */
  fresh(from: Pattern): z.infer<Schema>;
  /** Panels and folds. */
  pattern(choice: z.infer<Schema>): Pattern;
}

/** Puts a schema and the rest of its record together. In two calls, so that TypeScript knows the schema when it reads the rest. */
export const defineFold =
  <Schema extends FoldSchema>(schema: Schema) =>
  (rest: Omit<FoldKind<Schema>, 'schema'>): FoldKind<Schema> => ({ ...rest, schema });
