import { median } from '../../core/measure/median';
import type { Cleaning } from '../../core/pages/cleaning';
import type { Gray } from '../gray';
import { paperIn, toneOf, type Paper } from './paper';
import { halved } from './picture';

/** The dots of a picture, a byte for each colour of each: grey, or red green blue. */
export interface Dots {
  width: number;
  height: number;
  colours: 1 | 3;
  data: Uint8Array;
}

/** The paper's sides are found in pictures of about so many dots an inch. */
const FIND_PPI = 100;
/** Darker than this is no paper: such a picture keeps its colours. */
const DARKEST_PAPER = 110;
/** Dots that differ from the paper's tone by so much are paper; so many of them are looked at. */
const [ALIKE, SAMPLES] = [10, 40_000];
/** Paper becomes white from so many times its own unevenness below its colour on, but not more than this share of it. */
const [UNEVEN, LEAST_WHITE] = [2.5, 0.9];
/** What is darker than this share of paper is ink. */
const INK = 0.6;
/** So far around ink, in mm, its soft edge is kept; so far in from the paper's side a dark line is its edge. */
const [SOFT_MM, EDGE_MM] = [0.35, 0.5];
/** A square of so many mm of which more than this share has tones between ink and paper is a picture, and kept. */
const [PICTURE_MM, PICTURE_SHARE] = [4, 0.3];
/** Tones of pictures, as shares of paper. */
const [DEEP, PALE] = [0.15, 0.86];

/**
 * Cleans a scan of `ppi` dots an inch in place. Paper becomes white by one factor for each colour, so that colours keep their
 * balance; what shows through is what is paler than ink and neither near it nor part of a picture.
 */
export function cleanDots(dots: Dots, { paper, through, edges }: Cleaning, ppi: number): void {
  const gray = grayOf(dots);
  let [small, by] = [gray, 1];
  while (ppi / by >= 1.6 * FIND_PPI) [small, by] = [halved(small), by * 2];
  const tone = toneOf(small);
  if (tone < DARKEST_PAPER) return;
  const ground = groundOf(dots, gray, tone);
  if (through) whiten(dots, paleOf(gray, tone, ppi), ground);
  if (edges) whiten(dots, outsideOf(gray, paperIn(small), by, (EDGE_MM * ppi) / 25.4), ground);
  if (paper) balance(dots, ground);
}

function grayOf({ width, height, colours, data }: Dots): Gray {
  if (colours === 1) return { width, height, light: data.slice() };
  const light = new Uint8Array(width * height);
  for (let n = 0, at = 0; n < light.length; n++, at += 3)
    // Rec. 601, in 256ths.
    light[n] = (77 * data[at]! + 150 * data[at + 1]! + 29 * data[at + 2]!) >> 8;
  return { width, height, light };
}

/** For each colour, the tone from which on paper is white. */
function groundOf({ colours, data }: Dots, { light }: Gray, tone: number): number[] {
  const step = Math.max(1, Math.floor(light.length / SAMPLES));
  const seen: number[][] = Array.from({ length: colours }, () => []);
  for (let n = 0; n < light.length; n += step)
    if (Math.abs(light[n]! - tone) <= ALIKE)
      for (let colour = 0; colour < colours; colour++) seen[colour]!.push(data[n * colours + colour]!);
  return seen.map((tones) => {
    const middle = median(tones);
    const uneven = median(tones.map((each) => Math.abs(each - middle)));
    return Math.max(middle * LEAST_WHITE, middle - UNEVEN * uneven);
  });
}

/** Dots that are neither ink nor near it, nor part of a picture. */
function paleOf({ width, height, light }: Gray, tone: number, ppi: number): Uint8Array {
  const keep = spread(
    Uint8Array.from(light, (each) => Number(each < tone * INK)),
    width,
    height,
    Math.max(1, Math.round((SOFT_MM * ppi) / 25.4)),
  );
  const side = Math.max(4, Math.round((PICTURE_MM * ppi) / 25.4));
  const [across, down] = [Math.ceil(width / side), Math.ceil(height / side)];
  const between = new Uint32Array(across * down);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const each = light[y * width + x]!;
      if (each > tone * DEEP && each < tone * PALE)
        between[Math.floor(y / side) * across + Math.floor(x / side)]!++;
    }
  const picture = spread(
    Uint8Array.from(between, (count) => Number(count > PICTURE_SHARE * side * side)),
    across,
    down,
    1,
  );
  const pale = new Uint8Array(keep.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (!keep[y * width + x] && !picture[Math.floor(y / side) * across + Math.floor(x / side)])
        pale[y * width + x] = 1;
  return pale;
}

/** Marks everything within `reach` dots, across and down, of what is marked. */
function spread(marks: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  const along = (from: Uint8Array, lines: number, next: number, length: number, step: number) => {
    const made = new Uint8Array(from.length);
    for (let line = 0; line < lines; line++)
      for (const [start, by] of [
        [line * next, step],
        [line * next + (length - 1) * step, -step],
      ] as const)
        for (let n = 0, at = start, left = 0; n < length; n++, at += by) {
          if (from[at]) left = reach + 1;
          if (left-- > 0) made[at] = 1;
        }
    return made;
  };
  return along(along(marks, height, width, width, 1), width, 1, height, width);
}

/** Dots that lie outside the paper or on its very edge; sides are those of a picture `by` times smaller. */
function outsideOf(
  { width, height }: Gray,
  { left, right, head, foot }: Paper,
  by: number,
  edge: number,
): Uint8Array {
  const outside = new Uint8Array(width * height);
  const inAt = (side: Paper['left'], along: number, middle: number): number =>
    side ? Math.max(0, side.at * by + side.slope * (along - middle) + edge) : 0;
  for (let y = 0; y < height; y++) {
    const row = y * width;
    outside.fill(1, row, row + Math.min(width, Math.ceil(inAt(left, y, height / 2))));
    outside.fill(1, row + Math.max(0, Math.floor(width - inAt(right, y, height / 2))), row + width);
  }
  for (let x = 0; x < width; x++) {
    const top = Math.min(height, Math.ceil(inAt(head, x, width / 2)));
    for (let y = 0; y < top; y++) outside[y * width + x] = 1;
    for (let y = Math.max(0, Math.floor(height - inAt(foot, x, width / 2))); y < height; y++)
      outside[y * width + x] = 1;
  }
  return outside;
}

/** Gives dots the paper's colour. */
function whiten({ colours, data }: Dots, which: Uint8Array, ground: readonly number[]): void {
  const tones = ground.map((tone) => Math.min(255, Math.round(tone)));
  for (let n = 0; n < which.length; n++)
    if (which[n])
      for (let colour = 0; colour < colours; colour++) data[n * colours + colour] = tones[colour]!;
}

/** Makes paper white, each colour by its own factor. */
function balance({ colours, data }: Dots, ground: readonly number[]): void {
  const tables = ground.map((tone) =>
    Uint8Array.from({ length: 256 }, (_, value) => Math.min(255, Math.round((value * 255) / tone))),
  );
  for (let n = 0; n < data.length; n += colours)
    for (let colour = 0; colour < colours; colour++) data[n + colour] = tables[colour]![data[n + colour]!]!;
}
