import { bounds, mirrored, type Box, type Size } from '../measure/box';
import { applyToBox, translate } from '../measure/matrix';
import { mm } from '../measure/unit';
import { textHeight, textWidth, type Setting } from '../numbers/faces';
import { sayDate } from '../numbers/finish';
import { PatternError, readPatternOf } from '../numbers/pattern';
import { PROCESS } from '../pages/inks';
import { BLACK, type Colour } from '../surface/colour';
import { markLine, type Item } from '../surface/surface';
import { backMatrix, onSheet, type PlacedForm } from './form';
import { beyond, isClear, lengthOf, type MarkRoom } from './marks';
import type { SheetJob, SheetLine } from './plan';
import { MARK_WEIGHT, type MarkSettings } from './scheme';

/** What the slug line may hold besides its own words. */
export const SLUG_TOKENS = ['job', 'sheet', 'side', 'ink', 'date'] as const;

/** What the slug line says of a sheet. */
export interface SheetWords {
  job: SheetJob;
  number: number;
  of: number;
  name?: string;
}

interface Margin {
  placed: readonly PlacedForm[];
  side: 'front' | 'back';
  sheet: Size;
  axis: 'vertical' | 'horizontal';
  /** Boxes on the front that nothing may touch: the bleeds. */
  clear: readonly Box[];
  /** The lines of the side, which no other mark may lie on. */
  lines: readonly SheetLine[];
  room: MarkRoom;
  say: SheetWords;
}

/** Marks that were asked for and for which there is no room. */
export type DroppedMark = 'registration' | 'bar' | 'slug';

/** How much of a sheet's height, at its head and at its foot, marks beyond the trim marks take. */
export function beyondMarks({ bar, slug }: MarkSettings): number {
  const { above, below } = textHeight(SLUG);
  return (bar ? APART + PATCH : 0) + (slug?.trim() ? APART + above + below : 0);
}

/** By practice: a circle with a cross; patches of a bar, each of one ink, solid and as a half tone; small type. */
const REGISTRATION_RADIUS = mm(1.6);
const PATCH = mm(5);
const SLUG: Setting = { face: 'Source Sans 3', weight: 'regular', size: 7 };
/** Between one thing in the margin and the next. */
const APART = mm(1.5);
/** Where along a side a registration mark is tried, as shares of it: in the middle, unless something is there. */
const TRIED = [0.5, 0.42, 0.58, 0.34, 0.66, 0.26, 0.74];

const inkOf = (n: number, share: number): Colour => ({
  as: 'process',
  c: n === 0 ? share : 0,
  m: n === 1 ? share : 0,
  y: n === 2 ? share : 0,
  k: n === 3 ? share : 0,
});

/** Marks that are more than lines: registration marks, colour bar, slug line and collating bars; as their side is seen. */
export function marginMarks({ placed, side, sheet, axis, clear, lines, room, say }: Margin): {
  marks?: readonly Item[];
  dropped?: readonly DroppedMark[];
} {
  const { settings } = room;
  const barred = placed.some(({ form }) => form.bars);
  if (!barred && !settings.registration && !settings.bar && !settings.slug) return {};
  const whole = side === 'front' ? translate(0, 0) : backMatrix(sheet, axis);
  /** A box on the front as it is seen on this side. */
  const seen = (box: Box): Box => (side === 'front' ? box : applyToBox(whole, mirrored(box, sheet.width)));
  const bleeds = clear.map(seen);
  const printed = seen(room.printed);
  const around = bounds(bleeds);
  // Lines that are printed; those of this side are given as it is seen.
  const taken = [...bleeds, ...lines.filter(({ kind }) => kind.endsWith('mark'))];
  const dropped: DroppedMark[] = [];
  const items: Item[] = [];
  const reach = beyond(room) - Math.max(room.bleed.left, room.bleed.right, room.bleed.head, room.bleed.foot);
  const far = reach + lengthOf(settings);
  for (const { form, ...place } of placed)
    for (const { face, box } of form.bars ?? [])
      if (face === side)
        items.push({
          kind: 'rect',
          box: seen(applyToBox(onSheet({ form, ...place }), box)),
          ink: BLACK,
          layer: 'marks',
        });
  const put = (box: Box): boolean => {
    if (!isClear(box, taken, printed)) return false;
    taken.push(box);
    return true;
  };
  if (settings.registration) {
    const half = lengthOf(settings) / 2;
    const [w, h] = [around.x1 - around.x0, around.y1 - around.y0];
    const sides = [
      (share: number) => ({ x: around.x0 + share * w, y: around.y1 + reach + half }),
      (share: number) => ({ x: around.x0 + share * w, y: around.y0 - reach - half }),
      (share: number) => ({ x: around.x0 - reach - half, y: around.y0 + share * h }),
      (share: number) => ({ x: around.x1 + reach + half, y: around.y0 + share * h }),
    ];
    for (const at of sides) {
      const place = TRIED.map(at).find(({ x, y }) =>
        put({ x0: x - half, x1: x + half, y0: y - half, y1: y + half }),
      );
      if (place) items.push(...registrationMark(place, half, settings.weight ?? MARK_WEIGHT));
    }
    if (!items.some(({ kind }) => kind === 'circle')) dropped.push('registration');
  }
  if (settings.bar) {
    const patches = [
      ...PROCESS.flatMap((_, n) => [inkOf(n, 1), inkOf(n, 0.5)]),
      ...say.job.spots().flatMap(({ ink }) => [ink, { ...ink, tint: 0.5 }]),
    ];
    const width = patches.length * PATCH;
    const x0 = (around.x0 + around.x1 - width) / 2;
    const ys = [around.y0 - far - APART - PATCH, around.y1 + far + APART];
    const y0 = ys.find((y) => put({ x0, x1: x0 + width, y0: y, y1: y + PATCH }));
    if (y0 === undefined) dropped.push('bar');
    else
      patches.forEach((ink, n) =>
        items.push({
          kind: 'rect',
          box: { x0: x0 + n * PATCH, x1: x0 + (n + 1) * PATCH, y0, y1: y0 + PATCH },
          ink,
          layer: 'marks',
        }),
      );
  }
  if (settings.slug?.trim()) {
    const runs = slugRuns(settings.slug, say, side, settings.date);
    const width = runs.reduce((sum, { text }) => sum + textWidth(text, SLUG), 0);
    const { above, below } = textHeight(SLUG);
    const [low, high] = [around.y0 - far - APART - above, around.y1 + far + APART + below];
    // Next to the trim marks, else beyond the colour bar.
    const past = APART + PATCH;
    const ys = [low, high, low - past, high + past];
    const x0 = around.x0;
    const y = ys.find((base) => put({ x0, x1: x0 + width, y0: base - below, y1: base + above }));
    let x = x0;
    if (y === undefined) dropped.push('slug');
    else
      for (const { text, ink } of runs) {
        items.push({ kind: 'text', ...SLUG, text, ink, align: 'left', matrix: translate(x, y) });
        x += textWidth(text, SLUG);
      }
  }
  return { ...(items.length ? { marks: items } : {}), ...(dropped.length ? { dropped } : {}) };
}

/** A circle and a cross in all inks. */
function registrationMark({ x, y }: { x: number; y: number }, half: number, width: number): Item[] {
  const radius = Math.min(REGISTRATION_RADIUS, 0.7 * half);
  return [
    markLine({ x0: x - half, x1: x + half, y0: y, y1: y }, width),
    markLine({ x0: x, x1: x, y0: y - half, y1: y + half }, width),
    { kind: 'circle', x, y, radius, width, ink: 'all', layer: 'marks' },
  ];
}

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
      return [...PROCESS.map((ink, n) => ({ name: ink, ink: inkOf(n, 1) })), ...job.spots()].map(
        ({ name: plate, ink }, n) => ({ text: n ? ` ${plate}` : plate, ink }),
      );
    return [{ text: values[part.token], ink: BLACK }];
  });
}
