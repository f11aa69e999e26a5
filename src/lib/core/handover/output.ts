import * as z from 'zod';
import { selectionSchema } from '../pages/selection';

/** Most pages, or sides of sheets, that a part may be asked to have. */
const MOST_PAGES = 100_000;
/** Bounds of a part's size in megabytes (of 1,000,000 bytes, as mail and file systems count them). */
export const PART_MB = { least: 0.05, most: 4096 } as const;
/** Bounds of the resolution of previews, in pixels an inch. */
export const PREVIEW_PPI = { least: 18, plain: 96, most: 600 } as const;

/** Bounds of the resolution at which the press stand-in shows what it printed, in pixels an inch. */
export const PRESS_PPI = { least: 18, plain: 72, most: 300 } as const;
/** The edge about which a press turns a sheet for its back; or it prints one side of each and turns none. */
export const PRESS_TURNS = ['short-edge', 'long-edge', 'one-side'] as const;
export type PressTurn = (typeof PRESS_TURNS)[number];
/** What a cutter follows: what is drawn in an ink, or on a layer. */
export const cutBySchema = z.object({ what: z.enum(['ink', 'layer']), name: z.string().min(1).max(200) });
export type CutBy = z.infer<typeof cutBySchema>;

const every = z.object({ by: z.literal('every'), count: z.number().int().min(1).max(MOST_PAGES) });
/** Fronts and backs apart, for a press that is fed by hand; `reverse` where the pile comes to lie upside down. */
const faces = z.object({ by: z.literal('faces'), reverse: z.literal(true).optional() });
/** As many pages as a file of so many megabytes takes. */
const size = z.object({ by: z.literal('size'), mb: z.number().min(PART_MB.least).max(PART_MB.most) });

/** How the pages of a file are shared out to several. */
export const pageSplitSchema = z.discriminatedUnion('by', [
  every,
  /** At every bookmark of a level, counted from 0. */
  z.object({ by: z.literal('bookmarks'), level: z.number().int().min(0).max(20) }),
  z.object({ by: z.literal('series') }),
  z.object({ by: z.literal('pieces') }),
  /** At every page picked. */
  z.object({ by: z.literal('places'), at: selectionSchema }),
  faces,
  size,
]);
const sideSplitSchema = z.discriminatedUnion('by', [every, faces, size]);
const spreadSplitSchema = z.discriminatedUnion('by', [every, size]);
export type Split = z.infer<typeof pageSplitSchema>;

const base = {
  /** Tells one output of a job from another; where missing, there is one of its kind. */
  id: z.string().min(1).max(64).optional(),
  /** Pattern of the names of its files (see `NAME_TOKENS`), where not plain. */
  name: z.string().max(300).optional(),
};

/**
 * What goes out of a job: the pages in reading order (the CropBox at the bleed or at the trim), all or some of them; the
 * sheets; facing pages as spreads; a leaflet's blank template; the sheet map; pictures of pages or of sheets; the docket;
 * the job ticket; the sheets on the press stand-in; the paths that the cutter stand-in follows.
 */
export const outputSchema = z.discriminatedUnion('kind', [
  z.object({
    ...base,
    kind: z.literal('pages'),
    crop: z.enum(['bleed', 'trim']),
    pages: selectionSchema.optional(),
    split: pageSplitSchema.optional(),
  }),
  z.object({ ...base, kind: z.literal('sheets'), split: sideSplitSchema.optional() }),
  z.object({ ...base, kind: z.literal('spreads'), split: spreadSplitSchema.optional() }),
  z.object({ ...base, kind: z.literal('template') }),
  z.object({ ...base, kind: z.literal('map'), as: z.enum(['csv', 'json']) }),
  z.object({
    ...base,
    kind: z.literal('previews'),
    of: z.enum(['pages', 'sheets']),
    ppi: z.number().int().min(PREVIEW_PPI.least).max(PREVIEW_PPI.most),
  }),
  z.object({ ...base, kind: z.literal('docket') }),
  z.object({ ...base, kind: z.literal('ticket') }),
  z.object({
    ...base,
    kind: z.literal('press'),
    /** As the sheets were planned, where missing. */
    turn: z.enum(PRESS_TURNS).optional(),
    ppi: z.number().int().min(PRESS_PPI.least).max(PRESS_PPI.most),
  }),
  z.object({
    ...base,
    kind: z.literal('cutter'),
    of: z.enum(['pages', 'sheets']),
    /** The likeliest of `cutsOf`, where missing. */
    by: cutBySchema.optional(),
  }),
]);
export type Output = z.infer<typeof outputSchema>;
export type OutputKind = Output['kind'];
/** Every kind, in the order in which they are offered. */
export const OUTPUT_KINDS = [
  'sheets',
  'pages',
  'spreads',
  'template',
  'map',
  'previews',
  'docket',
  'ticket',
  'press',
  'cutter',
] as const satisfies readonly OutputKind[];
/** Kinds that go to a stand-in for a machine: each shows what it received. */
export const isSent = (kind: OutputKind): kind is 'press' | 'cutter' => kind === 'press' || kind === 'cutter';
export type OutputOf<Kind extends OutputKind> = Extract<Output, { kind: Kind }>;

/** What an output is known by in its job. */
export const outputKey = ({ id, kind }: Output): string => id ?? kind;

/** How an output's files end, after the point. */
export const extensionOf = (output: Output): string =>
  output.kind === 'map'
    ? output.as
    : (({ previews: 'png', press: 'png', cutter: 'svg', docket: 'docket.json' } as Record<string, string>)[
        output.kind
      ] ?? 'pdf');
