import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { deflateSync, inflateSync } from 'node:zlib';
import type * as fontkit from 'fontkit';
import { faceKey } from '../../core/numbers/faceMetrics';
import type { Setting } from '../../core/model/faces';
import { PdfText, type AddObject, type Dictionary, type Plain } from '../objects/objects';

/** A face being embedded: codes are given out as texts are shown, and what was shown is written at the end. */
export interface OpenFace {
  /** The text as a hexadecimal string of two-byte codes. */
  code(text: string): string;
  /** Writes what the font with the glyphs that were shown is made of, and returns its own dictionary. */
  embed<Ref>(add: AddObject<Ref>): Dictionary<Ref>;
}

/** A face in a weight. */
export type FaceWeight = Pick<Setting, 'face' | 'weight'>;

const FILES: Record<string, string> = {
  'Source Sans 3 regular': '@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff',
  'Source Sans 3 strong': '@fontsource/source-sans-3/files/source-sans-3-latin-600-normal.woff',
  'Source Serif 4 regular': '@fontsource/source-serif-4/files/source-serif-4-latin-400-normal.woff',
  'Source Serif 4 strong': '@fontsource/source-serif-4/files/source-serif-4-latin-600-normal.woff',
  'DejaVu Sans regular': 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf',
  'DejaVu Sans strong': 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf',
};
/** Scripts that are offered, as ranges of code points: Latin, Greek and Cyrillic, then their additions, punctuation, signs and arrows. */
const OFFERED: readonly (readonly [from: number, to: number])[] = [
  [0x20, 0x52f],
  [0x1e00, 0x22ff],
];

const load = createRequire(import.meta.url);
const opened = new Map<string, fontkit.Font>();

/** The shipped font file of a face; read once, since unpacking it takes longer than setting a thousand lines. */
export function openFace(face: FaceWeight): fontkit.Font {
  const key = faceKey(face);
  const known =
    opened.get(key) ?? (parser().create(unwrapped(readFileSync(load.resolve(FILES[key]!)))) as fontkit.Font);
  opened.set(key, known);
  return known;
}

/** The parser of fonts, loaded when text is set for the first time: most processes that read or write PDFs set none, and it takes 0.15 s. */
const parser = (): typeof fontkit => load('fontkit');

/** A font file with its tables unpacked once for all: WOFF (W3C, File Format 1.0) as the font it wraps, any other as it is. */
function unwrapped(file: Buffer): Buffer {
  if (file.toString('latin1', 0, 4) !== 'wOFF') return file;
  const count = file.readUInt16BE(12);
  const head = Buffer.alloc(12 + 16 * count);
  file.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  const parts: Buffer[] = [head];
  let at = head.length;
  for (let n = 0; n < count; n++) {
    const entry = 44 + 20 * n;
    const from = file.readUInt32BE(entry + 4);
    const [packed, size] = [file.readUInt32BE(entry + 8), file.readUInt32BE(entry + 12)];
    const data = file.subarray(from, from + packed);
    const table = packed < size ? inflateSync(data) : data;
    const to = 12 + 16 * n;
    file.copy(head, to, entry, entry + 4);
    file.copy(head, to + 4, entry + 16, entry + 20);
    head.writeUInt32BE(at, to + 8);
    head.writeUInt32BE(size, to + 12);
    parts.push(table, Buffer.alloc(-size & 3));
    at += size + (-size & 3);
  }
  return Buffer.concat(parts);
}

/** Advance of a character, from the table of horizontal metrics (the outline, which may be empty, is not looked at). */
function advanceOf(font: fontkit.Font, point: number): number {
  const { metrics } = (
    font as unknown as {
      hmtx: { metrics: { get(n: number): { advance: number } | undefined; length: number } };
    }
  ).hmtx;
  const { id } = font.glyphForCodePoint(point);
  return metrics.get(Math.min(id, metrics.length - 1))!.advance;
}

/** What the core keeps of a face: height of its H, depth of its p, and advances in thousandths of its size, the latter by runs of code points. */
export function metricsOfFace(font: fontkit.Font): {
  capHeight: number;
  depth: number;
  runs: [number, number[]][];
} {
  const thousandths = (units: number) => Math.round((units * 1000) / font.unitsPerEm);
  const runs: [number, number[]][] = [];
  const points = [...new Set(font.characterSet)]
    .filter((point) => OFFERED.some(([from, to]) => point >= from && point <= to))
    .sort((a, b) => a - b);
  for (const point of points) {
    const advance = thousandths(advanceOf(font, point));
    const open = runs.at(-1);
    if (open && open[0] + open[1].length === point) open[1].push(advance);
    else runs.push([point, [advance]]);
  }
  const reach = (char: string) => font.glyphForCodePoint(char.codePointAt(0)!).bbox;
  return { capHeight: thousandths(reach('H').maxY), depth: thousandths(-reach('p').minY), runs };
}

/** Symbolic, by table 123: its codes are glyphs, not characters. */
const SYMBOLIC = 4;

/**
 * Opens a face to be embedded as a composite font with TrueType outlines (ISO 32000-1, 9.7.4 and 9.9), only the glyphs that
 * were shown, and a map back to Unicode (9.10.3), so that the text can be searched.
 */
export function embedFace(face: FaceWeight): OpenFace {
  const font = openFace(face);
  const subset = font.createSubset();
  const codes = new Map<number, { code: number; width: number }>();
  const codeOf = (char: string): number => {
    const point = char.codePointAt(0)!;
    let known = codes.get(point);
    if (!known) {
      const code = Number(subset.includeGlyph(font.glyphForCodePoint(point)));
      known = { code, width: advanceOf(font, point) / font.unitsPerEm };
      codes.set(point, known);
    }
    return known.code;
  };
  return {
    code: (text) => `<${[...text].map((char) => hex(codeOf(char))).join('')}>`,
    embed: (add) => writeFace(font, subset, codes, add),
  };
}

function writeFace<Ref>(
  font: fontkit.Font,
  subset: fontkit.Subset,
  codes: ReadonlyMap<number, { code: number; width: number }>,
  add: AddObject<Ref>,
): Dictionary<Ref> {
  const named = `FOLDER+${font.postscriptName}`;
  const thousandths = (units: number) => Math.round((units * 1000) / font.unitsPerEm);
  const file = subset.encode();
  const packed = (content: Uint8Array, more: Dictionary<Ref> = {}) => {
    const stream = deflateSync(content);
    return add({ ...more, Filter: 'FlateDecode', Length: stream.length }, stream);
  };
  const { minX, minY, maxX, maxY } = font.bbox;
  const descriptor = add({
    Type: 'FontDescriptor',
    FontName: named,
    Flags: SYMBOLIC,
    FontBBox: [minX, minY, maxX, maxY].map(thousandths),
    ItalicAngle: font.italicAngle,
    Ascent: thousandths(font.ascent),
    Descent: thousandths(font.descent),
    CapHeight: thousandths(font.glyphForCodePoint(0x48).bbox.maxY),
    StemV: 80,
    FontFile2: packed(file, { Length1: file.length }),
  });
  const sorted = [...codes].sort((a, b) => a[1].code - b[1].code);
  const descendant = add({
    Type: 'Font',
    Subtype: 'CIDFontType2',
    BaseFont: named,
    CIDSystemInfo: { Registry: new PdfText('Adobe'), Ordering: new PdfText('Identity'), Supplement: 0 },
    FontDescriptor: descriptor,
    CIDToGIDMap: 'Identity',
    W: sorted.flatMap(([, { code, width }]): Plain<Ref>[] => [code, [Math.round(width * 1000)]]),
  });
  return {
    Type: 'Font',
    Subtype: 'Type0',
    BaseFont: named,
    Encoding: 'Identity-H',
    DescendantFonts: [descendant],
    ToUnicode: packed(Buffer.from(toUnicode(sorted.map(([point, { code }]) => [code, point])), 'latin1')),
  };
}

const hex = (value: number): string => value.toString(16).padStart(4, '0').toUpperCase();

function toUnicode(codes: readonly (readonly [code: number, point: number])[]): string {
  const lines = codes.map(([code, point]) => `<${hex(code)}> <${hex(point)}>`);
  return `/CIDInit /ProcSet findresource begin 12 dict begin begincmap
/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def
/CMapName /Adobe-Identity-UCS def /CMapType 2 def
1 begincodespacerange <0000> <FFFF> endcodespacerange
${lines.length} beginbfchar
${lines.join('\n')}
endbfchar
endcmap CMapName currentdict /CMap defineresource pop end end`;
}
