import * as z from 'zod';

/** How a run of pages is numbered: decimal, roman or letters, large or small; none if only the prefix shows (ISO 32000-1, table 159). */
export const LABEL_STYLES = ['D', 'r', 'R', 'a', 'A'] as const;
export type LabelStyle = (typeof LABEL_STYLES)[number];

export const NUMBER_STYLES = ['none', ...LABEL_STYLES] as const;
export type NumberStyle = (typeof NUMBER_STYLES)[number];

/** How the pages of a number series are numbered. */
export const seriesShape = {
  name: z.string().trim().max(60).optional(),
  style: z.enum(NUMBER_STYLES),
  /** The first number; if missing the series goes on from the one before. */
  start: z.number().int().min(1).max(100_000).optional(),
  prefix: z.string().max(40).optional(),
  suffix: z.string().max(40).optional(),
  /** Blank pages carry no number and are not counted. */
  skipBlanks: z.literal(true).optional(),
  /** Faces of fold-out panels are counted where a reader meets them; else they never move a number. */
  panels: z.literal(true).optional(),
};
export type SeriesSettings = z.infer<z.ZodObject<typeof seriesShape>>;

/** A number series where it begins: at the page with id `at`, up to where the next one begins. */
export type Series = SeriesSettings & { at: string };
