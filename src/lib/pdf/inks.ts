import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFRawStream,
  PDFString,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import type { Ink } from '../core/pages/survey';
import { decodeStream } from './decodeStream';
import type { SourcePage } from './pageTree';

const CMYK = ['Cyan', 'Magenta', 'Yellow', 'Black'];
const OF_DEVICE: Record<string, string> = {
  DeviceCMYK: 'CMYK',
  CMYK: 'CMYK',
  DeviceGray: 'Grey',
  G: 'Grey',
  CalGray: 'Grey',
  DeviceRGB: 'RGB',
  RGB: 'RGB',
  CalRGB: 'RGB',
  Lab: 'Lab',
};
const OF_COMPONENTS: Record<number, string> = { 1: 'Grey', 3: 'RGB', 4: 'CMYK' };
/** Colour operators of content streams (ISO 32000-1, 8.6.8). */
const OF_OPERATOR: Record<string, string> = {
  k: 'CMYK',
  K: 'CMYK',
  g: 'Grey',
  G: 'Grey',
  rg: 'RGB',
  RG: 'RGB',
};
const DEEPEST = 24;

/** Finds the inks of pages: process colours by colour operator and colour space, spots by Separation and DeviceN (8.6.6.4, 8.6.6.5). */
export class InkFinder {
  private readonly found = new Map<string, Ink>();
  private readonly seen = new Set<PDFObject>();
  constructor(private readonly context: PDFContext) {}

  page({ dict, inherited }: SourcePage): void {
    this.resources(dict.get(PDFName.of('Resources')) ?? inherited.Resources, 0);
    const contents = dict.lookup(PDFName.of('Contents'));
    if (contents instanceof PDFArray)
      for (let i = 0; i < contents.size(); i++) this.operators(contents.lookup(i));
    else this.operators(contents);
  }

  inks(): Ink[] {
    const order = (ink: Ink) => `${ink.kind === 'process' ? 0 : 1}${ink.name}`;
    return [...this.found.values()].sort((a, b) => (order(a) < order(b) ? -1 : 1));
  }

  private resources(value: PDFObject | undefined, depth: number): void {
    const dict = this.context.lookup(value);
    if (!(dict instanceof PDFDict) || this.seen.has(dict) || depth > DEEPEST) return;
    this.seen.add(dict);
    this.each(dict, 'ColorSpace', (space) => this.space(space, depth));
    this.each(dict, 'XObject', (object) => {
      if (!(object instanceof PDFRawStream) || this.seen.has(object)) return;
      this.seen.add(object);
      if (object.dict.lookup(PDFName.of('Subtype')) === PDFName.of('Image'))
        this.space(object.dict.lookup(PDFName.of('ColorSpace')), depth);
      else this.form(object, depth);
    });
    this.each(dict, 'Shading', (shading) => this.shading(shading, depth));
    this.each(dict, 'Pattern', (pattern) => {
      if (pattern instanceof PDFRawStream && !this.seen.has(pattern)) this.form(pattern, depth);
      else if (pattern instanceof PDFDict) this.shading(pattern.lookup(PDFName.of('Shading')), depth);
    });
  }

  private form(stream: PDFRawStream, depth: number): void {
    this.seen.add(stream);
    this.resources(stream.dict.get(PDFName.of('Resources')), depth + 1);
    this.operators(stream);
  }

  private shading(shading: PDFObject | undefined, depth: number): void {
    const dict = shading instanceof PDFRawStream ? shading.dict : shading;
    if (dict instanceof PDFDict) this.space(dict.lookup(PDFName.of('ColorSpace')), depth);
  }

  private space(value: PDFObject | undefined, depth: number): void {
    const space = this.context.lookup(value);
    if (depth > DEEPEST || !space) return;
    if (space instanceof PDFName) {
      this.process(OF_DEVICE[space.decodeText()]);
      return;
    }
    if (!(space instanceof PDFArray) || !space.size()) return;
    const family = space.lookup(0);
    const name = family instanceof PDFName ? family.decodeText() : '';
    if (name === 'Separation') this.spot(space.lookup(1));
    else if (name === 'DeviceN') {
      const names = space.lookup(1);
      if (names instanceof PDFArray) for (let i = 0; i < names.size(); i++) this.spot(names.lookup(i));
    } else if (name === 'ICCBased') {
      const profile = space.lookup(1);
      const n =
        profile instanceof PDFRawStream ? Number(profile.dict.lookup(PDFName.of('N'))?.toString()) : NaN;
      this.process(OF_COMPONENTS[n]);
    } else if (name === 'Indexed' || name === 'I' || name === 'Pattern') this.space(space.get(1), depth + 1);
    else this.process(OF_DEVICE[name]);
  }

  private spot(value: PDFObject | undefined): void {
    if (!(value instanceof PDFName)) return;
    const name = value.decodeText();
    if (name === 'All' || name === 'None') return;
    if (CMYK.includes(name)) this.process('CMYK');
    else this.found.set(`spot ${name}`, { name, kind: 'spot' });
  }

  private process(name: string | undefined): void {
    if (name) this.found.set(`process ${name}`, { name, kind: 'process' });
  }

  private operators(stream: PDFObject | undefined): void {
    const text = Buffer.from(decodeStream(stream))
      .toString('latin1')
      .replace(/\((?:\\.|[^\\()])*\)|<[0-9A-Fa-f\s]*>/gs, ' ');
    for (const [, operator] of text.matchAll(/[\d.]\s+(k|K|g|G|rg|RG)(?=[\s/[(<]|$)/g))
      this.process(OF_OPERATOR[operator!]);
  }

  private each(dict: PDFDict, key: string, visit: (value: PDFObject | undefined) => void): void {
    const entries = dict.lookup(PDFName.of(key));
    if (entries instanceof PDFDict)
      for (const [, value] of entries.entries()) visit(this.context.lookup(value));
  }
}

/** The text of a PDF string. */
export const textOf = (value: PDFObject | undefined): string | undefined =>
  value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : undefined;
