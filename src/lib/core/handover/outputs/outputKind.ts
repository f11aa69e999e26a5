import type * as z from 'zod';
import type { AskedOf } from '../agree';
import type { Cuttable, Part } from '../parts';

/** Every output has at least these. */
export type OutputSchema = z.ZodObject<{ kind: z.ZodLiteral<string>; name: z.ZodOptional<z.ZodString> }>;

/** One kind of output: what of a job goes out, as which files. All is pure; `make` writes them. */
export interface OutputKind<Schema extends OutputSchema> {
  kind: z.infer<Schema>['kind'];
  schema: Schema;
  /** How its files end, after the point. */
  extension(output: z.infer<Schema>): string;
  /** Whether a job can give it as it stands. */
  possible(work: Cuttable): boolean;
  /** Its settings as they begin. */
  fresh(work: Cuttable): Omit<z.infer<Schema>, 'id'>;
  /** The files that it gives. One that is split by its size is one part here: only writing tells what fits. Throws SplitProblem, SelectionError. */
  parts(work: Cuttable, output: z.infer<Schema>): Part[];
  /** What its files have pages of; missing where they have none that are counted. */
  counts?: 'pages' | 'sides' | 'spreads';
  /** Whether the name of a file says the size of the sheets. */
  sheetSized?(output: z.infer<Schema>): boolean;
  /** It gives a file for each page or side. */
  single?: true;
  /** It goes to a stand-in for a machine, which shows what it received. */
  sent?: true;
  /** It is for reading or for who prepares the job, and goes to no press or knife: findings that say stop do not hold it. */
  isForReading?(output: z.infer<Schema>): boolean;
  /** It is written for people, in the language of who ordered it. */
  isWorded?: true;
  /** It prints findings, so that all that was measured of the pages is needed. */
  tellsFindings?: true;
  /** Whether what is drawn on pages must be measured before it is made. */
  looksAtPages?(output: z.infer<Schema>): boolean;
  /** What its files must be once they are read again; missing where they are no PDF of pages. */
  asked?(work: Cuttable, output: z.infer<Schema>): AskedOf | undefined;
}

/** Puts a schema and the rest of its record together. In two calls, so that TypeScript knows the schema when it reads the rest. */
export const defineOutput =
  <Schema extends OutputSchema>(schema: Schema) =>
  (rest: Omit<OutputKind<Schema>, 'schema'>): OutputKind<Schema> => ({ ...rest, schema });
