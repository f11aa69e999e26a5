import { FACES, type Face, type Setting, WEIGHTS, type Weight } from '../model/faces';
import metrics from './faceMetrics.json' with { type: 'json' };
import { entryOf, recordOf } from '../entries';

interface Metrics {
  /** Height of capitals and depth below the base line, in thousandths of the size. */
  capHeight: number;
  depth: number;
  /** Advance of each character, in thousandths of the size. */
  advances: ReadonlyMap<number, number>;
}

/** What the shipped file of each face says, as `npm run faces` read it: runs of [first code point, advances]. */
const KNOWN = new Map(
  Object.entries(metrics).map(([key, { capHeight, depth, runs }]): [string, Metrics] => {
    const advances = new Map<number, number>();
    for (const [first, widths] of runs as [number, number[]][])
      widths.forEach((width, n) => advances.set(first + n, width));
    return [key, { capHeight, depth, advances }];
  }),
);

/** The name under which a face in a weight is kept. */
export const faceKey = ({ face, weight }: Pick<Setting, 'face' | 'weight'>): string => `${face} ${weight}`;

/** The same, found without making a key: lines are measured many times on every page. */
const BY_FACE = recordOf(FACES, (face) =>
  recordOf(WEIGHTS, (weight) => entryOf(KNOWN, faceKey({ face, weight }))),
);
const metricsOf = ({ face, weight }: Pick<Setting, 'face' | 'weight'>): Metrics => BY_FACE[face][weight];

/** How far each character moves the next one, in points; no kerning, so that every program sets the same. */
export function advancesOf(text: string, setting: Setting): number[] {
  const { advances } = metricsOf(setting);
  return [...text].map((char) => ((advances.get(char.codePointAt(0)!) ?? 0) * setting.size) / 1000);
}

/** Width of a line of text, in points. */
export function textWidth(text: string, setting: Setting): number {
  const { advances } = metricsOf(setting);
  let width = 0;
  for (const char of text) width += advances.get(char.codePointAt(0)!) ?? 0;
  return (width * setting.size) / 1000;
}

/** Height of capitals above the base line and depth of letters below it, in points. */
export function textHeight(setting: Setting): { above: number; below: number } {
  const { capHeight, depth } = metricsOf(setting);
  return { above: (capHeight * setting.size) / 1000, below: (depth * setting.size) / 1000 };
}

/** The characters of a text that a face has no glyph for, each once. */
export const missingGlyphs = (text: string, setting: Pick<Setting, 'face' | 'weight'>): string[] => [
  ...new Set([...text].filter((char) => !metricsOf(setting).advances.has(char.codePointAt(0)!))),
];

/** The first face that has a glyph for all of a text; undefined if none has. */
export const faceFor = (text: string, weight: Weight): Face | undefined =>
  FACES.find((face) => !missingGlyphs(text, { face, weight }).length);
