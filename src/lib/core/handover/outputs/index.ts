import * as z from 'zod';
import { byKind, unionOf, ofAnyKind } from '../../kinds';
import type { AskedOf } from '../agree';
import type { Cuttable, Part } from '../parts';
import type { Split } from '../split';
import { cutter } from './cutter';
import { docket } from './docket';
import { dummy } from './dummy';
import { finishing } from './finishing';
import { map } from './map';
import { pages } from './pages';
import { press } from './press';
import { proof } from './proof';
import { previews } from './previews';
import { sheets } from './sheets';
import { spreads } from './spreads';
import { template } from './template';
import { ticket } from './ticket';
import type { OutputKind as Record, OutputSchema } from './outputKind';

/** Every kind of output: a new one is a file here, one in words/outputs, one in make/outputs, a form where it needs one, and its line. In the order in which they are offered. */
export const OUTPUTS = [
  sheets,
  pages,
  spreads,
  template,
  map,
  previews,
  docket,
  ticket,
  finishing,
  proof,
  dummy,
  press,
  cutter,
] as const;

/** What goes out of a job. */
export const outputSchema = unionOf(OUTPUTS);
export type Output = z.infer<typeof outputSchema>;
export type OutputKind = Output['kind'];
export type OutputOf<Kind extends OutputKind> = Extract<Output, { kind: Kind }>;

/** An output that has no id yet. */
export type OutputDraft = Output extends infer Each
  ? Each extends Output
    ? Omit<Each, 'id'>
    : never
  : never;

const BY_KIND = byKind(OUTPUTS);
/** What the records of all kinds have in common, whatever kind an output is of. */
type AnyKind = Pick<Record<OutputSchema>, 'counts' | 'single' | 'sent' | 'tellsFindings' | 'possible'> & {
  schema: OutputSchema;
  extension(output: Output): string;
  isForReading?(output: Output): boolean;
  /** It is written for people, in the language of who ordered it. */
  isWorded?: true;
  fresh(work: Cuttable): OutputDraft;
  parts(work: Cuttable, output: Output): Part[];
  sheetSized?(output: Output): boolean;
  looksAtPages?(output: Output): boolean;
  asked?(work: Cuttable, output: Output): AskedOf | undefined;
};
/** The record of a kind of output. */
export const outputKind = (kind: OutputKind): AnyKind => ofAnyKind(BY_KIND[kind]);

/** What an output is known by in its job. */
export const outputKey = ({ id, kind }: Output): string => id ?? kind;

/** The files that an output gives. Throws SplitProblem, SelectionError. */
export const partsOf = (work: Cuttable, output: Output): Part[] =>
  outputKind(output.kind).parts(work, output);

/** The kinds of output that a job can give as it stands. */
export const possibleKinds = (work: Cuttable): OutputKind[] =>
  OUTPUTS.filter(({ possible }) => possible(work)).map(({ kind }) => kind);

/** What each part of an output must be when it is written; undefined if that is no PDF of pages. */
export const askedOf = (work: Cuttable, output: Output): AskedOf | undefined =>
  outputKind(output.kind).asked?.(work, output);

/** An output of a kind with its settings as they begin. */
export const freshOutput = (kind: OutputKind, id: string, work: Cuttable): Output => ({
  ...outputKind(kind).fresh(work),
  id,
});

/** The ways in which a kind of output can be split, as its schema has them. */
export function splitsOf(kind: OutputKind): Split['by'][] {
  const { split } = outputKind(kind).schema.shape as { split?: z.ZodOptional<z.ZodDiscriminatedUnion> };
  return split
    ? split
        .unwrap()
        .options.map((option) => (option as z.ZodObject<{ by: z.ZodLiteral<Split['by']> }>).shape.by.value)
    : [];
}
