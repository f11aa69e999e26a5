import * as z from 'zod';
import { translate } from '../../measure/matrix';
import { textHeight, textWidth } from '../../numbers/faceMetrics';
import type { Setting } from '../../model/faces';
import { sayDate } from '../../numbers/finish';
import { PatternError, readPatternOf } from '../../numbers/pattern';
import { PROCESS } from '../../numbers/jobInks';
import { BLACK, type Colour } from '../../ink/colour';
import type { Item } from '../../model/surface';
import { defineMark, type SheetWords } from './markKind';
import { APART, PATCH, plateInk } from './plates';

/** What the slug line may hold besides its own words. */
export const SLUG_TOKENS = ['job', 'sheet', 'side', 'ink', 'date'] as const;

/** Small type, by practice. */
const SLUG: Setting = { face: 'Source Sans 3', weight: 'regular', size: 7 };
const HEIGHT = textHeight(SLUG);

/** What the slug line says, with tokens; none if it is left out. */
export const slug = defineMark({
  kind: 'slug',
  setting: z.string().max(300).optional(),
  room: APART + HEIGHT.above + HEIGHT.below,
  draw({ settings, around, far, say, side, take }, pattern) {
    const runs = slugRuns(pattern, say, side, settings.date);
    const width = runs.reduce((sum, { text }) => sum + textWidth(text, SLUG), 0);
    const { above, below } = HEIGHT;
    const [low, high] = [around.y0 - far - APART - above, around.y1 + far + APART + below];
    // Next to the trim marks, else beyond the colour bar.
    const past = APART + PATCH;
    let x = around.x0;
    const y = [low, high, low - past, high + past].find((base) =>
      take({ x0: x, x1: x + width, y0: base - below, y1: base + above }),
    );
    if (y === undefined) return undefined;
    return runs.map(({ text, ink }): Item => {
      const at = translate(x, y);
      x += textWidth(text, SLUG);
      return { kind: 'text', ...SLUG, text, ink, align: 'left', matrix: at };
    });
  },
});

/** The slug line as runs of one ink: a plate's name is printed on that plate alone. */
function slugRuns(
  pattern: string,
  { job, number, of, name }: SheetWords,
  side: 'front' | 'back',
  date: string | undefined,
): { text: string; ink: Colour }[] {
  let parts: ReturnType<typeof readPatternOf<(typeof SLUG_TOKENS)[number]>>;
  try {
    parts = readPatternOf(pattern, SLUG_TOKENS);
  } catch (error) {
    if (error instanceof PatternError) return [];
    throw error;
  }
  const values = {
    job: job.title,
    sheet: `${number} of ${of}${name ? `, ${name}` : ''}`,
    side,
    date: date ? sayDate(date) : '',
  };
  return parts.flatMap((part): { text: string; ink: Colour }[] => {
    if (typeof part === 'string') return [{ text: part, ink: BLACK }];
    if (part.token === 'ink')
      return [...PROCESS.map((ink, n) => ({ name: ink, ink: plateInk(n, 1) })), ...job.spots()].map(
        ({ name: plate, ink }, n) => ({ text: n ? ` ${plate}` : plate, ink }),
      );
    return [{ text: values[part.token], ink: BLACK }];
  });
}
