import * as z from 'zod';

const turnSchema = z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]);
/** A number that stands alone: its middle, how its reader must turn the page clockwise to read it, and how surely it was read off a picture, of 100. */
const numberSchema = z.object({
  value: z.number().int().min(0),
  x: z.number(),
  y: z.number(),
  turn: turnSchema,
  sure: z.number().optional(),
});
export type ReadNumber = z.infer<typeof numberSchema>;

const boxSchema = z.object({ x0: z.number(), y0: z.number(), x1: z.number(), y1: z.number() });
const matrixSchema = z
  .tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number()])
  .readonly();

/** What is drawn on a source page, measured by rendering it; boxes in points as the page is seen. */
export const drawnSchema = z.object({
  /** The renderer cannot read the page. */
  unreadable: z.literal(true).optional(),
  /** Bounds of all that is not white. */
  ink: boxSchema.optional(),
  /** How its reader must turn the page clockwise to read most of its words, those behind a scan too. */
  leans: turnSchema.optional(),
  /** Bounds of the text that shows. */
  text: boxSchema.optional(),
  /** Pixels an inch of the coarsest image at the size it has on the page. */
  ppi: z.number().positive().optional(),
  /** What stands on the page by itself: blocks of text, images, and drawings that are no backgrounds. */
  objects: z.array(z.object({ kind: z.enum(['text', 'image', 'path']), box: boxSchema })).optional(),
  /** Numbers that stand alone, as folios do. */
  numbers: z.array(numberSchema).optional(),
  /**
   * It is a scan, a picture of paper: how many degrees clockwise it lies beyond quarter turns; and, once that is turned back about
   * the page's middle, where its paper ends, and where it folds: how far from the left, or from the foot of one that is higher than wide.
   * `blank`: the paper has nothing on it.
   */
  scan: z
    .object({
      skew: z.number(),
      paper: boxSchema,
      fold: z.number().optional(),
      blank: z.literal(true).optional(),
    })
    .optional(),
});
export type Drawn = z.infer<typeof drawnSchema>;

/**
 * Facts of one source page. Boxes are in points *as the page is seen*: `/Rotate` and `UserUnit` (ISO 32000-1, 7.7.3.3)
 * are resolved and the origin is the lower left corner of the turned MediaBox. Missing boxes have their defaults
 * (14.11.2: crop from media; bleed, trim and art from crop); `given` says which were really there.
 */
export const surveyPageSchema = z.object({
  boxes: z.object({ media: boxSchema, crop: boxSchema, bleed: boxSchema, trim: boxSchema, art: boxSchema }),
  given: z.array(z.enum(['media', 'crop', 'bleed', 'trim', 'art'])),
  rotate: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  userUnit: z.number().positive(),
  /** From the page's own user space to points as seen. */
  toUpright: matrixSchema,
  /** The printed page number the file claims (12.4.2). */
  label: z.string().optional(),
  /** It is a side of a sheet that was made here, and so the sheet was turned over for its back: about which axis, as the front lies. */
  sheet: z.object({ side: z.enum(['front', 'back']), axis: z.enum(['vertical', 'horizontal']) }).optional(),
  /** It draws nothing. */
  empty: z.literal(true).optional(),
  /** Some of its content is not in the file, or damaged there. */
  incomplete: z.literal(true).optional(),
  /** A photograph is all it shows and fills it: where in the file its JPEG lies, from a byte up to and without another. */
  jpeg: z.tuple([z.number().int().min(0), z.number().int().min(0)]).optional(),
  /** Which of the survey's inks the page has, by their indexes. */
  inks: z.array(z.number().int().min(0)).optional(),
  /** Missing until the page is measured. */
  drawn: drawnSchema.optional(),
});
export type SurveyPage = z.infer<typeof surveyPageSchema>;

export const inkSchema = z.object({
  name: z.string(),
  kind: z.enum(['process', 'spot']),
  /** What stands for a spot ink where its plate is missing: shares of cyan, magenta, yellow and black. */
  mix: z.tuple([z.number(), z.number(), z.number(), z.number()]).optional(),
});
export type Ink = z.infer<typeof inkSchema>;

/** What a file can do besides being looked at, in the order in which it is told. */
export const ACTIVE_KINDS = [
  'javascript',
  'launch',
  'open-action',
  'embedded-file',
  'xfa',
  'form-action',
  'media',
  'other-file',
  'layer-action',
] as const;
export type ActiveKind = (typeof ACTIVE_KINDS)[number];

/** A picture or drawing that was taken in as pages: its kind, the pixels an inch that its pages have, and whether it states them. */
export const pictureSchema = z.object({
  kind: z.enum(['JPEG', 'PNG', 'TIFF', 'SVG']),
  ppi: z.number().positive(),
  stated: z.boolean(),
});
export type Picture = z.infer<typeof pictureSchema>;

/** One image of a picture, packed as a PDF has it (ISO 32000-1, 8.9.5): `entries` of its dictionary say how. Size in dots, turn clockwise. */
export interface PackedImage {
  width: number;
  height: number;
  ppi: number;
  turn: number;
  /** Colours of each dot: grey, red green blue, or four inks; and the profile that says what they are, where the picture has one. */
  components: 1 | 3 | 4;
  profile?: Uint8Array;
  entries: string;
  bytes: Uint8Array;
}

/** Facts read from a source. */
export const surveySchema = z.object({
  version: z.literal(1),
  pages: z.array(surveyPageSchema).min(1),
  /** What tells each page's content from that of others, a CRC-32; null where it is drawn with something else in it. Missing in surveys of an older Folder. */
  contents: z.array(z.number().int().min(0).nullable()).optional(),
  inks: z.array(inkSchema),
  bookmarks: z.array(
    z.object({ title: z.string(), level: z.number().int().min(0), page: z.number().int().optional() }),
  ),
  title: z.string().optional(),
  producer: z.string().optional(),
  pdfVersion: z.string(),
  /** `owner`: encrypted, but opens without a password. */
  encryption: z.enum(['none', 'owner']),
  byteCount: z.number().int().positive(),
  /** Pages, from 0, with annotations or form fields that print, and with others; missing where nobody looked. */
  annotations: z
    .object({ print: z.array(z.number().int().min(0)), screen: z.array(z.number().int().min(0)) })
    .optional(),
  /** It was damaged: what could be found was put together anew. */
  rebuilt: z.literal(true).optional(),
  picture: pictureSchema.optional(),
  /** What it can do besides being looked at; missing where nobody looked, as in surveys of an older Folder. */
  active: z.array(z.enum(ACTIVE_KINDS)).optional(),
});
export type Survey = z.infer<typeof surveySchema>;

/** Surveys by the SHA-256 of their source. */
export type Surveys = Readonly<Record<string, Survey>>;

/** Whether annotations of a source may print: also where nobody looked. */
export const mayPrint = (survey: Survey | undefined): boolean => survey?.annotations?.print.length !== 0;
