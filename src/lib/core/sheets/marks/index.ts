import * as z from 'zod';
import { lengthWithin } from '../../measure/lengthSchema';
import { bar } from './bar';
import { centre } from './centre';
import { fold } from './fold';
import { paths } from './paths';
import { registration } from './registration';
import { slug } from './slug';
import { trim } from './trim';
import { isAsked, type LineContext, type MarginContext } from './markKind';
import { MARK_LIMITS } from './markSize';
import type { Item } from '../../model/surface';
import { ofAnyKind } from '../../kinds';

/** Every kind of printer's mark: a new one is a file here, one in words/marks, and its line. In the order in which they are put. */
export const MARKS = [trim, fold, centre, registration, bar, paths, slug] as const;

type Mark = (typeof MARKS)[number];
export type MarkName = Mark['kind'];
const settings = Object.fromEntries(MARKS.map(({ kind, setting }) => [kind, setting])) as {
  [Kind in Mark as Kind['kind']]: Kind['setting'];
};

/** Printer's marks, each kind on or off, or what it says; lengths in points. */
export const marksSchema = z.object({
  ...settings,
  /** What `{date}` stands for: a day as YYYY-MM-DD. */
  date: z.iso.date().optional(),
  length: lengthWithin(MARK_LIMITS.length).optional(),
  /** Their least distance from the trim; they keep clear of the bleed all the same. */
  offset: lengthWithin(MARK_LIMITS.offset).optional(),
  weight: lengthWithin(MARK_LIMITS.weight).optional(),
});
export type MarkSettings = z.infer<typeof marksSchema>;

/** What the records of all kinds have in common, whatever mark it is. */
interface AnyMark {
  kind: MarkName;
  setting: z.ZodType;
  lines?(context: LineContext): void;
  room?: number;
  draw?(context: MarginContext, setting: unknown): Item[] | undefined;
}
const ALL = ofAnyKind<readonly AnyMark[]>(MARKS);

/** The marks that settings ask for. */
export const askedFor = (settings: MarkSettings): AnyMark[] =>
  ALL.filter(({ kind }) => isAsked(settings[kind]));

/** How much of a sheet's height, at its head and at its foot, marks beyond the trim marks take. */
export const beyondMarks = (settings: MarkSettings): number =>
  askedFor(settings).reduce((sum, { room = 0 }) => sum + room, 0);

/** Marks that are on or off. */
export const SWITCHED: readonly MarkName[] = MARKS.flatMap(({ kind, setting }) =>
  setting.safeParse(true).success ? [kind] : [],
);
