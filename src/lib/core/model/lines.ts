import * as z from 'zod';
import { lengthWithin, offset } from '../measure/lengthSchema';
import { BLACK, colourSchema } from '../ink/colour';
import { FACES, WEIGHTS } from './faces';

/** What a pattern may hold besides its own words; see `Values`. */
export const TOKENS = [
  'page',
  'pages',
  'label',
  'series',
  'title',
  'file',
  'date',
  'piece',
  'number',
] as const;
export type Token = (typeof TOKENS)[number];

/**
 * What the tokens of a page stand for: `page` its number in its series, `pages` the last number of that, `label` the whole
 * label with prefix and suffix, `series`, `title` (of the job), `file` that it came from, `piece` by name, `date`, and the
 * `number` of a numbered set.
 */
export type Values = Readonly<Record<Token, string>>;

export const EDGES = ['head', 'foot'] as const;
/** Outer and inner follow the leaf and mirror on its two faces; left and right stay where they are. */
export const PLACES = ['outer', 'centre', 'inner', 'left', 'right'] as const;
export type LinePlace = (typeof PLACES)[number];

const pattern = z.string().max(300);
/** One text and where it stands. Patterns as in `readPattern`. */
export const textAtSchema = z.object({
  edge: z.enum(EDGES),
  across: z.enum(PLACES),
  text: pattern,
  /** What left-hand pages say instead; upper ones in a book bound at the head. */
  left: pattern.optional(),
  /** What the first page of a series says instead. */
  first: pattern.optional(),
});
export type TextAt = z.infer<typeof textAtSchema>;

/** How lines of text are set and where they do not show. Lengths in points. */
export const linesShape = {
  /** What `x` and `y` are measured from: the trim inwards, or the margins outwards to head and foot. */
  from: z.enum(['trim', 'margin']),
  x: offset,
  y: offset,
  face: z.enum(FACES),
  weight: z.enum(WEIGHTS),
  size: lengthWithin([1, 600]),
  ink: colourSchema,
  /** A rule over or under the texts of each edge, from side to side. */
  rule: z
    .object({
      at: z.enum(['over', 'under']),
      width: lengthWithin([0.05, 72]),
      gap: lengthWithin([0, 720]),
    })
    .optional(),
  /** On blank pages too. */
  blanks: z.literal(true).optional(),
  /** Not on the first pages of series. */
  notFirst: z.literal(true).optional(),
  /** Ids of single pages from which it was clicked away. */
  away: z.array(z.string()).max(5000).optional(),
  /** What `{date}` stands for. */
  date: z.iso.date().optional(),
};

/** How lines are set as long as nothing else is wanted: small and black, measured from the trim. */
export const PLAIN_LINES = {
  from: 'trim',
  face: 'Source Sans 3',
  weight: 'regular',
  size: 9,
  ink: BLACK,
} as const;

/** Lines of text as a step sets them. */
export type Lines = z.infer<z.ZodObject<typeof linesShape>> & { texts: readonly TextAt[] };

/** Lines on a page, as a step put them there. */
export interface PageLines {
  step: string;
  lines: Lines;
  /** The number of a numbered set. */
  number?: string;
  /** How much larger than set, where the page grew and the lines with it. */
  scale?: number;
}

/** Why lines do not show on a page that they were put on. */
export type Hidden = 'away' | 'blank' | 'first';

/** Lines on a page of the finished list, with what their tokens stand for there. */
export interface Matter extends PageLines {
  values: Values;
  /** The page is the first of its series. */
  first: boolean;
  hidden?: Hidden;
}
