import { entryAt } from '../../core/entries';
import { median } from '../../core/measure/median';
import type { Gray } from '../gray';

/** A side of the paper in a picture: so many dots in from the picture's own side at its middle, and how that grows along it. */
export interface PaperSide {
  at: number;
  slope: number;
}
export type Paper = Record<'left' | 'right' | 'head' | 'foot', PaperSide | undefined>;

/** Lines on which an edge is looked for; how far in, as a share of the picture. */
const [LINES, DEEPEST] = [72, 0.3];
/** Tones that differ from the paper's by less than this share of it are paper. */
const ALIKE = 0.16;
/** Paper is paper once so many dots in a row are, but for letters. */
const LASTS = 8;
/** Less than this share of the lines with an edge, or so many dots of it, is none. */
const [ENOUGH, LEAST] = [0.5, 3];
/** Points farther than this from the edge's line are of something else. */
const BESIDE = 2.5;

/** The sides of the paper where something else is seen beyond them, the glass's lid as a rule; a side where the paper goes on to the end of the picture is undefined. */
export function paperIn(gray: Gray): Paper {
  const tone = toneOf(gray);
  const { width, height } = gray;
  return {
    left: sideOf(gray, tone, height, width, (along, inwards) => along * width + inwards),
    right: sideOf(gray, tone, height, width, (along, inwards) => along * width + width - 1 - inwards),
    head: sideOf(gray, tone, width, height, (along, inwards) => inwards * width + along),
    foot: sideOf(gray, tone, width, height, (along, inwards) => (height - 1 - inwards) * width + along),
  };
}

/** The tone that most of a picture's middle has. */
export function toneOf({ width, height, light }: Gray): number {
  const counts = new Uint32Array(256);
  for (let y = height >> 2; y < height - (height >> 2); y += 3)
    for (let x = width >> 2; x < width - (width >> 2); x += 3) counts[light[y * width + x]!]!++;
  let [best, most] = [255, 0];
  for (let tone = 2; tone < 254; tone++) {
    const here = counts[tone - 1]! + counts[tone]! + counts[tone + 1]!;
    if (here > most) [best, most] = [tone, here];
  }
  return counts[255]! + counts[254]! > most ? 255 : best;
}

function sideOf(
  { light }: Gray,
  tone: number,
  long: number,
  deep: number,
  at: (along: number, inwards: number) => number,
): PaperSide | undefined {
  const isPaper = (place: number) => Math.abs(light[place]! - tone) < tone * ALIKE;
  const found: { along: number; inwards: number }[] = [];
  // Near the corners the sides beside it would be met.
  for (let n = 0; n < LINES; n++) {
    const along = Math.round(long * (0.06 + (0.88 * n) / (LINES - 1)));
    for (let inwards = 0, run = 0; inwards < deep * DEEPEST; inwards++) {
      run = isPaper(at(along, inwards)) ? run + 1 : 0;
      if (run < LASTS) continue;
      found.push({ along: along - long / 2, inwards: inwards - LASTS + 1 });
      break;
    }
  }
  const edged = found.filter(({ inwards }) => inwards > LEAST);
  if (edged.length < LINES * ENOUGH) return undefined;
  const line = lineThrough(edged);
  const near = edged.filter(
    ({ along, inwards }) => Math.abs(line.at + line.slope * along - inwards) < BESIDE,
  );
  return near.length < LINES * ENOUGH ? undefined : lineThrough(near);
}

/** The line that suits most points: the median of the slopes between them (Theil 1950, Sen 1968). */
function lineThrough(points: readonly { along: number; inwards: number }[]): PaperSide {
  const slopes: number[] = [];
  for (let a = 0; a < points.length; a++)
    for (let b = a + 8; b < points.length; b += 3) {
      const [p, q] = [entryAt(points, a), entryAt(points, b)];
      slopes.push((q.inwards - p.inwards) / (q.along - p.along));
    }
  const slope = slopes.length ? median(slopes) : 0;
  return { slope, at: median(points.map(({ along, inwards }) => inwards - slope * along)) };
}
