import * as z from 'zod';
import { lengthWithin } from '../measure/lengthSchema';
import { UNITS } from '../measure/unit';
import { mm } from '../measure/unit';
import { DEFAULT_SCHEME, schemeSchema } from '../sheets/schemes';
import { PANEL_NUMBERS, SIDES, SPINES } from '../model/page';
import { outputKey, outputKind, outputSchema, type Output } from '../handover/outputs';
import { formatSchema } from './format';
import { stepKind, stepSchema, type Step } from './steps';

/** 3 mm, by practice (3 to 5 mm). */
const DEFAULT_SAFE = mm(3);
/** No safe margin is wider than this. */
export const MOST_SAFE = mm(50);

/** The instruction list of a job; with its sources, all there is. Lengths in points. */
export const docketSchema = z.object({
  version: z.literal(1),
  title: z.string().trim().min(1).max(200),
  /** Unit in which lengths are shown; changing it changes no length. */
  unit: z.enum(UNITS),
  book: z.object({
    first: z.enum(SIDES),
    spine: z.enum(SPINES).default('left'),
    facing: z.boolean().default(true),
    panels: z.enum(PANEL_NUMBERS).optional(),
  }),
  /** The safe margin: nothing that must be read lies nearer to the trim. */
  safe: lengthWithin([0, MOST_SAFE]).default(DEFAULT_SAFE),
  formats: z
    .array(formatSchema)
    .max(200)
    .refine((formats) => new Set(formats.map(({ id }) => id)).size === formats.length, 'format ids repeat')
    .default([]),
  steps: z
    .array(stepSchema)
    .max(5000)
    .refine((steps) => new Set(steps.map((step) => step.id)).size === steps.length, 'step ids repeat'),
  scheme: schemeSchema,
  /** Sheets are proved before they go out. */
  prove: z.boolean().optional(),
  /** What is handed over. */
  outputs: z
    .array(outputSchema)
    .max(100)
    .refine(
      (outputs) => new Set(outputs.map(outputKey)).size === outputs.length,
      'two outputs have the same id, or are of one kind and have none',
    ),
});
export type Docket = z.infer<typeof docketSchema>;

/** A job with nothing in it. */
export const emptyDocket = (title: string): Docket => ({
  version: 1,
  title,
  unit: 'mm',
  book: { first: 'right', spine: 'left', facing: true },
  safe: DEFAULT_SAFE,
  formats: [],
  steps: [],
  scheme: DEFAULT_SCHEME,
  prove: true,
  outputs: [{ kind: 'pages', crop: 'bleed' }, { kind: 'sheets' }],
});

/** Whether steps or outputs depend on what is drawn on pages, so that those must be measured before. */
export const looksAtPages = ({
  steps,
  outputs = [],
}: {
  steps: readonly Step[];
  outputs?: readonly Output[] | undefined;
}): boolean =>
  steps.some((step) => !step.off && !!stepKind(step.kind).looksAtPages?.(step)) ||
  outputs.some((output) => !!outputKind(output.kind).looksAtPages?.(output));

/** A source that a step names: by its SHA-256, and by what its file was called. */
export interface SourceNamed {
  source: string;
  name: string;
  /** Only steps that are switched off name it. */
  off: boolean;
}

/** Every source that steps name, each once: pages taken in, and the graphics of stamps and overlays. */
export function sourcesNamed({ steps }: { steps: readonly Step[] }): SourceNamed[] {
  const named = new Map<string, SourceNamed>();
  for (const step of steps) {
    for (const { source, name } of stepKind(step.kind).sources?.(step) ?? []) {
      const known = named.get(source);
      named.set(source, { source, name: known?.name ?? name, off: !!step.off && (known?.off ?? true) });
    }
  }
  return [...named.values()];
}

/** SHA-256 of every source the docket uses, switched-off steps too, each once. */
export const sourcesOf = (docket: Docket): string[] => sourcesNamed(docket).map(({ source }) => source);

/** The same with the files as they came where a docket has clean copies of them. */
export const filesOf = (docket: Docket): string[] => [
  ...new Set([
    ...sourcesOf(docket),
    ...docket.steps.flatMap((step) => (step.kind === 'take-in' && step.cleaned ? [step.cleaned.from] : [])),
  ]),
];

/** A job without a name of its own takes that of its first file. */
export const titleFrom = (name: string): string =>
  name
    .replace(/\.(pdf|jpe?g|png|tiff?|svg)$/i, '')
    .replace(/[_-]+/g, ' ')
    .trim()
    .slice(0, 200) || 'New job';
