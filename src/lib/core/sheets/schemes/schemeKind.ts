import type * as z from 'zod';
import type { Book, PageList } from '../../model/page';
import type { SheetJob, SheetPlan } from '../plan';

/** Every scheme has at least its kind. */
export type SchemeSchema = z.ZodObject<{ kind: z.ZodLiteral<string> }>;

/** One kind of scheme: how pages go on sheets. All is pure. */
export interface SchemeKind<Schema extends SchemeSchema> {
  kind: z.infer<Schema>['kind'];
  schema: Schema;
  /** As it begins, if nothing is known of the job. */
  plain: z.infer<Schema>;
  /** What becomes of its sheets: leaves bound at a spine, one folded piece, pieces cut apart, or nothing that is folded or cut. */
  makes: 'book' | 'folded' | 'cut' | 'nothing';
  /** The sheets; undefined if there are no pages, or they go on none. */
  plan(list: PageList, scheme: z.infer<Schema>, job: SheetJob): SheetPlan | undefined;
  /** How it suits the pages better than its plain forme does, and how they would have to lie. */
  suited?(plain: z.infer<Schema>, list: PageList): { scheme?: z.infer<Schema>; book?: Partial<Book> };
}

/** Puts a schema and the rest of its record together. In two calls, so that TypeScript knows the schema when it reads the rest. */
export const defineScheme =
  <Schema extends SchemeSchema>(schema: Schema) =>
  (rest: Omit<SchemeKind<Schema>, 'schema'>): SchemeKind<Schema> => ({ ...rest, schema });
