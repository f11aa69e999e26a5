import type { FinishPlan } from '../../core/finish/operations';
import { EDGE_REACH, type Edge } from '../../core/finish/proof';
import type { Sides } from '../../core/measure/box';
import { compose, invert, type Matrix } from '../../core/measure/matrix';
import type { Gray } from '../../raster/gray';
import type { Drawable } from './drawable';
import { spineOf, type Met } from './judge';
import { entryAt } from '../../core/entries';

/** Dots an inch at which edges are measured: a renderer puts the sides of boxes on whole dots, of which 0.1 mm has more than one. */
const EDGE_PPI = 300;
const SCALE = EDGE_PPI / 72;
const [PAPER, FULL] = [250, 255];
/** What differs from its ground by less than this cannot be read. */
const SEEN = 48;

/** An edge as a picture: rows run inwards from so many rows of paper beyond it, each a dot deep; columns along the edge. */
interface Strip {
  picture: Gray;
  /** Rows beyond the edge. */
  beyond: number;
}

/** The edges of a finished page that a knife makes: those of a bound leaf but for its spine, and all of a loose one. */
export function edgesOf(met: Met, side: Drawable | undefined, made: FinishPlan['made']): Edge[] {
  const { product, copy, index, page } = met;
  if (!side || 'cover' in page.at) return [];
  const bound = spineOf(page, made);
  // Panels of a folded piece meet at folds; which of them do is for whoever folds.
  if (made.reads === 'panels') return [];
  return (['left', 'right', 'head', 'foot'] as const).flatMap((edge): Edge[] => {
    if (edge === bound) return [];
    const strip = stripOf(met, side, edge);
    const [white, cut] = [whiteBeyond(strip), nearestInside(strip)];
    if (white === undefined && cut === undefined) return [];
    return [
      {
        product,
        copy,
        page: index,
        edge,
        ...(white === undefined ? {} : { white: white / SCALE }),
        ...(cut === undefined ? {} : { cut: cut / SCALE }),
      },
    ];
  });
}

/** Draws an edge of a page with as much beyond it and inside it as is looked at, the edge level and just between two rows. */
function stripOf({ page, toSide }: Met, side: Drawable, edge: keyof Sides): Strip {
  const { width, height } = page.size;
  const reach = Math.ceil(EDGE_REACH * SCALE);
  // From the page to the strip: along the edge, and inwards from it.
  const toStrip: Record<keyof Sides, Matrix> = {
    left: [0, SCALE, SCALE, 0, 0, reach],
    right: [0, -SCALE, SCALE, 0, 0, reach + width * SCALE],
    foot: [SCALE, 0, 0, SCALE, 0, reach],
    head: [SCALE, 0, 0, -SCALE, 0, reach + height * SCALE],
  };
  const long = edge === 'left' || edge === 'right' ? height : width;
  return {
    beyond: reach,
    picture: side.draw(compose(invert(toSide), toStrip[edge]), Math.floor(long * SCALE), 2 * reach),
  };
}

/** How far printed paper reaches beyond an edge at least, wherever it is printed up to it; undefined if it is white along it, or further than is looked. */
function whiteBeyond({ picture: { width, light }, beyond }: Strip): number | undefined {
  let least = Infinity;
  for (let x = 1; x < width - 1; x++) {
    let tone = light[(beyond + 1) * width + x]!;
    if (tone >= PAPER) continue;
    let reach = 0;
    for (let y = beyond - 1; y >= 0; y--) {
      const own = light[y * width + x]!;
      if (own >= PAPER) break;
      // The last dot before white paper is covered in part.
      const isLast = y > 0 && light[(y - 1) * width + x]! >= PAPER;
      reach += isLast ? Math.min(1, (FULL - own) / (FULL - tone)) : 1;
      tone = own;
    }
    least = Math.min(least, reach);
  }
  return least < beyond ? least : undefined;
}

/** How far inside an edge the nearest thing stands that does not reach it; undefined if there is none as far as is looked. */
function nearestInside({ picture: { width, height, light }, beyond }: Strip): number | undefined {
  const rows = height - beyond;
  const ground = groundOf(light.subarray((beyond + 1) * width, (beyond + 2) * width));
  const isInk = (at: number) => Math.abs(light[beyond * width + at]! - ground) > SEEN;
  // What hangs together with something at the edge is meant to be cut through.
  const open = new Uint8Array(rows * width);
  const queue: number[] = [];
  const reach = (at: number) => {
    if (open[at] || !isInk(at)) return;
    open[at] = 1;
    queue.push(at);
  };
  for (let x = 0; x < width; x++) reach(x);
  for (let n = 0; n < queue.length; n++) {
    const at = entryAt(queue, n);
    const [x, y] = [at % width, Math.floor(at / width)];
    for (let v = Math.max(0, y - 1); v <= Math.min(rows - 1, y + 1); v++)
      for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) reach(v * width + u);
  }
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      if (!isInk(at) || open[at]) continue;
      // The dot before may be covered in part.
      const before = y ? Math.abs(light[(beyond + y - 1) * width + x]! - ground) : 0;
      const full = Math.abs(light[Math.min(height - 1, beyond + y + 1) * width + x]! - ground) || 1;
      const own = Math.min(1, Math.abs(light[(beyond + y) * width + x]! - ground) / full);
      return y + 1 - own - Math.min(1, before / full);
    }
  return undefined;
}

/** The tone that most of an edge has. */
function groundOf(row: Uint8Array): number {
  const sorted = [...row].sort((a, b) => a - b);
  return entryAt(sorted, sorted.length >> 1);
}
