import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { deflateSync } from 'node:zlib';
import * as fontkit from 'fontkit';
import type { Face } from '../core/surface/surface';

/** A string of a PDF, to be told from a name. */
export class PdfText {
  constructor(readonly value: string) {}
}

/** What a writer's objects are made of: names as text, strings, numbers, arrays, dictionaries, and what it refers to other objects by. */
export type Plain<Ref> =
  string | number | PdfText | Ref | readonly Plain<Ref>[] | { readonly [key: string]: Plain<Ref> };
export type Dictionary<Ref> = { readonly [key: string]: Plain<Ref> };

/** Adds an object, or a stream with its packed bytes, to what is being written. */
export type AddObject<Ref> = (dictionary: Dictionary<Ref>, stream?: Uint8Array) => Ref;

/** A face as it is embedded: what refers to it, and how a text is shown in it. */
export interface Embedded<Ref> {
  ref: Ref;
  /** The text as a hexadecimal string of two-byte codes. */
  code(text: string): string;
  /** Width of the text at size 1, in points. */
  width(text: string): number;
}

const FILES: Record<Face, string> = {
  'Source Sans 3': 'source-sans-3/files/source-sans-3-latin-400-normal.woff',
};
/** Symbolic, by table 123: its codes are glyphs, not characters. */
const SYMBOLIC = 4;

/**
 * Embeds the glyphs that texts need as a composite font with TrueType outlines (ISO 32000-1, 9.7.4 and 9.9) and a map back
 * to Unicode (9.10.3), so that the text can be searched.
 */
export function embedFace<Ref>(face: Face, texts: readonly string[], add: AddObject<Ref>): Embedded<Ref> {
  const bytes = readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${FILES[face]}`));
  const font = fontkit.create(bytes) as fontkit.Font;
  const subset = font.createSubset();
  const codes = new Map<number, { code: number; width: number }>();
  const em = font.unitsPerEm;
  for (const char of new Set(texts.join(''))) {
    const point = char.codePointAt(0)!;
    const glyph = font.glyphForCodePoint(point);
    codes.set(point, { code: Number(subset.includeGlyph(glyph)), width: glyph.advanceWidth / em });
  }
  const named = `FOLDER+${font.postscriptName}`;
  const thousandths = (units: number) => Math.round((units * 1000) / em);
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
    CapHeight: thousandths(font.capHeight),
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
  const ref = add({
    Type: 'Font',
    Subtype: 'Type0',
    BaseFont: named,
    Encoding: 'Identity-H',
    DescendantFonts: [descendant],
    ToUnicode: packed(Buffer.from(toUnicode(sorted.map(([point, { code }]) => [code, point])), 'latin1')),
  });
  const known = (char: string) => codes.get(char.codePointAt(0)!)!;
  return {
    ref,
    code: (text) => `<${[...text].map((char) => hex(known(char).code)).join('')}>`,
    width: (text) => [...text].reduce((sum, char) => sum + known(char).width, 0),
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
