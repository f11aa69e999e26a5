import type { Size } from '../measure/box';
import { inch, mm } from '../measure/unit';
import { TOLERANCES } from '../measure/tolerances';

/** A named size, portrait: `width ≤ height`, in points; `family` groups it in lists. */
export interface NamedSize extends Size {
  name: string;
  family: 'ISO A' | 'ISO B' | 'ISO C and DL' | 'ISO RA and SRA' | 'US' | 'cards' | 'squares' | 'other';
}

/** ISO series: each size is the one before cut in half across, rounded down to the millimetre (ISO 216, clause 3; ISO 217; ISO 269). */
function series(
  prefix: string,
  family: NamedSize['family'],
  width: number,
  height: number,
  first: number,
  last: number,
): NamedSize[] {
  const sizes: NamedSize[] = [];
  for (let n = 0, w = width, h = height; n <= last; n++, [w, h] = [Math.floor(h / 2), w])
    if (n >= first) sizes.push({ name: `${prefix}${n}`, family, width: mm(w), height: mm(h) });
  return sizes;
}

const us = (name: string, width: number, height: number): NamedSize => ({
  name,
  family: 'US',
  width: inch(width),
  height: inch(height),
});

const square = (name: string, side: number): NamedSize => ({
  name,
  family: 'squares',
  width: side,
  height: side,
});

/**
 * Sizes known by name. ISO 216 (A, B), ISO 269 (C, DL), ISO 217 (RA, SRA, from memory), ISO/IEC 7810 (ID-1);
 * US sheets as Debian's libpaper lists them; slip and square by practice.
 */
export const NAMED_SIZES: readonly NamedSize[] = [
  ...series('A', 'ISO A', 841, 1189, 0, 10),
  ...series('B', 'ISO B', 1000, 1414, 0, 10),
  ...series('C', 'ISO C and DL', 917, 1297, 0, 8),
  { name: 'DL', family: 'ISO C and DL', width: mm(110), height: mm(220) },
  ...series('RA', 'ISO RA and SRA', 860, 1220, 0, 4),
  ...series('SRA', 'ISO RA and SRA', 900, 1280, 0, 4),
  us('Letter', 8.5, 11),
  us('Legal', 8.5, 14),
  us('Tabloid', 11, 17),
  us('Half Letter', 5.5, 8.5),
  us('Executive', 7.25, 10.5),
  us('12 × 18', 12, 18),
  us('13 × 19', 13, 19),
  us('US card', 2, 3.5),
  { name: 'ID-1 card', family: 'cards', width: mm(53.98), height: mm(85.6) },
  { name: 'card 85 × 55', family: 'cards', width: mm(55), height: mm(85) },
  { name: 'slip', family: 'other', width: mm(99), height: mm(210) },
  ...[105, 148, 210, 297].map((side) => square(`square ${side}`, mm(side))),
  square('square 8.5 in', inch(8.5)),
];

/** A size for screens, in pixels. */
export interface ScreenSize {
  name: string;
  width: number;
  height: number;
}

/** Sizes for screens by their pixels: shapes of common displays and pictures, by practice. */
export const SCREEN_SIZES: readonly ScreenSize[] = [
  [1080, 1080],
  [1080, 1350],
  [1080, 1920],
  [1200, 630],
  [1280, 720],
  [1920, 1080],
  [2560, 1440],
  [3840, 2160],
].map(([width, height]) => ({ name: `${width} × ${height} px`, width: width!, height: height! }));

/** Pixels an inch that a screen's pixel stands for if nothing else is said (CSS: 1 px = 1/96 in). */
export const SCREEN_PPI = 96;

/** A length of pixels in points at a resolution in pixels an inch. */
export const pixels = (count: number, ppi: number): number => (count * 72) / ppi;

/** True when both sizes agree within TOLERANCES.size, orientation counted. */
export const sameSize = (a: Size, b: Size): boolean =>
  Math.abs(a.width - b.width) <= TOLERANCES.size && Math.abs(a.height - b.height) <= TOLERANCES.size;

/** The size by its name, capitals and spaces not counted; portrait. Undefined when nobody knows it. */
export const sizeByName = (name: string): NamedSize | undefined => {
  const plain = (text: string) => text.toLowerCase().replace(/[\s×x-]+/g, '');
  return NAMED_SIZES.find((size) => plain(size.name) === plain(name));
};

/** The name of a size and whether it lies landscape, or undefined for a size of nobody's. */
export function nameSize(size: Size): { name: string; landscape: boolean } | undefined {
  const upright = NAMED_SIZES.find((known) => sameSize(known, size));
  if (upright) return { name: upright.name, landscape: false };
  const lying = NAMED_SIZES.find((known) => sameSize({ width: known.height, height: known.width }, size));
  return lying && { name: lying.name, landscape: true };
}
