import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNull,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import type { Ink } from '../../core/model/survey';
import { decoded, streamsOf } from '../objects/decodeStream';
import { textOfName } from '../objects/libraryObjects';
import type { ContentSums } from './contentSum';
import { resourcesOf, type SourcePage } from './pageTree';
import { textOf } from '../raw/scan';
import { DEVICE_OPERATORS } from '../content/interpret';
import { operationsOf } from '../content/operations';

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
/** A colour operator that names a device space, or the same letters within a string, a name or an image. */
const LOOKS_LIKE_COLOUR = /(?<![^\0\s()<>[\]{}/%])(?:rg|RG|[kKgG])(?![^\0\s()<>[\]{}/%])/g;
const DEEPEST = 24;
/** Operators that name something of the resources (ISO 32000-1, table 51), and in which of their lists it stands (table 33). */
const NAMES: ReadonlyMap<string, string> = new Map([
  ['Do', 'XObject'],
  ['Tf', 'Font'],
  ['gs', 'ExtGState'],
  ['cs', 'ColorSpace'],
  ['CS', 'ColorSpace'],
  ['scn', 'Pattern'],
  ['SCN', 'Pattern'],
  ['sh', 'Shading'],
]);
/** Stands for whatever a list of resources names, where that is not there. */
const ANY = '/*';
/** What fonts and images are made of, besides what they look the same without. */
const VITAL = [
  'DescendantFonts',
  'FontDescriptor',
  'FontFile',
  'FontFile2',
  'FontFile3',
  'CIDToGIDMap',
  'CharProcs',
  'Encoding',
  'Widths',
  'W',
  'ColorSpace',
  'SMask',
  'Mask',
].map((key) => PDFName.of(key));

/** Inks by what tells them apart, and whether all content in which they were looked for could be read. */
interface Found {
  inks: Map<string, Ink>;
  whole: boolean;
  /** What of resources is not whole, by its list and the name that content has for it. */
  broken: Set<string>;
  /** A form has no resources of its own, and may draw what those around it name (ISO 32000-1, 7.8.3). */
  borrows: boolean;
}
const nothing = (): Found => ({ inks: new Map(), whole: true, broken: new Set(), borrows: false });
const keyOf = ({ kind, name }: Ink): string => `${kind === 'process' ? 0 : 1}${name}`;

/**
 * Finds the inks of pages: process colours by colour operator and colour space, spots by Separation and DeviceN (8.6.6.4,
 * 8.6.6.5). What several pages share is looked at once.
 */
export class InkFinder {
  private readonly all = nothing();
  private readonly known = new Map<PDFObject, Found>();
  /** Where what is found goes at present. */
  private found = nothing();
  /** `sums` hears of all content that is read; process colours that content sets itself are looked for unless `only` spot inks are. */
  constructor(
    private readonly context: PDFContext,
    private readonly sums?: ContentSums,
    private readonly only?: 'spots',
  ) {}

  /** The inks of a page, and whether its content, that of its forms too, is whole. */
  page(page: SourcePage): { inks: Ink[]; whole: boolean } {
    this.found = nothing();
    this.resources(resourcesOf(page), 0);
    const streams = streamsOf(page.dict);
    for (const stream of streams) this.once(stream, () => this.operators(stream));
    this.settle(streams);
    const inks = [...this.found.inks.values()];
    for (const ink of inks) this.keep(this.all, ink);
    return { inks, whole: this.found.whole };
  }

  /** The inks of all pages looked at, process inks first. */
  inks(): Ink[] {
    return [...this.all.inks].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, ink]) => ink);
  }

  /** Looks at an object for its inks, or recalls them. */
  private once(object: PDFObject, look: () => void): void {
    const outer = this.found;
    let own = this.known.get(object);
    if (!own) {
      own = nothing();
      this.known.set(object, own);
      this.found = own;
      look();
      this.found = outer;
    }
    for (const ink of own.inks.values()) this.keep(outer, ink);
    for (const name of own.broken) outer.broken.add(name);
    outer.whole &&= own.whole;
    outer.borrows ||= own.borrows;
  }

  /** Looks at a thing of resources: one that is not whole is missed only where it is used. */
  private named(name: string, look: () => void): void {
    const { whole } = this.found;
    this.found.whole = true;
    look();
    if (!this.found.whole) this.found.broken.add(name);
    this.found.whole = whole;
  }

  /** Content is not whole where it draws what is broken in its resources. */
  private settle(content: readonly PDFObject[]): void {
    const { broken, borrows } = this.found;
    if (!broken.size) return;
    // An operation may begin in one stream and end in the next (7.8.2).
    const text = content
      .map((stream) => decoded(stream).bytes)
      .map((bytes) => textOf(bytes, [0, bytes.length]))
      .join('\n');
    // A name can be written in more than one way with #xx.
    const isBroken = (list: string, name: string) =>
      broken.has(list + name) || broken.has(list + ANY) || name.includes('#');
    const isMissed = () =>
      [...operationsOf(text)].some(({ operator, operands }) => {
        const list = NAMES.get(operator);
        return list !== undefined && operands.some((name) => name.startsWith('/') && isBroken(list, name));
      });
    if (borrows || [...broken].some((name) => name.includes('#')) || isMissed()) this.found.whole = false;
    this.found.broken = new Set();
  }

  private keep({ inks }: Found, ink: Ink): void {
    const key = keyOf(ink);
    if (!inks.get(key)?.mix) inks.set(key, ink);
  }

  private resources(value: PDFObject | undefined, depth: number): void {
    const dict = this.context.lookup(value);
    if (!(dict instanceof PDFDict) || depth > DEEPEST) return;
    this.once(dict, () => {
      const part = (key: string, look: (thing: PDFObject) => void) =>
        this.each(dict, key, (thing, name) =>
          this.named(key + name, () => {
            if (thing) look(thing);
            else this.found.whole = false;
          }),
        );
      part('ColorSpace', (space) => this.space(space, depth));
      part('XObject', (object) => {
        if (!(object instanceof PDFRawStream)) return;
        if (object.dict.lookup(PDFName.of('Subtype')) !== PDFName.of('Image')) this.form(object, depth);
        else {
          this.found.whole = this.isThere(object);
          this.space(object.dict.lookup(PDFName.of('ColorSpace')), depth);
        }
      });
      part('Shading', (shading) => this.shading(shading, depth));
      part('Pattern', (pattern) => {
        if (pattern instanceof PDFRawStream) this.form(pattern, depth);
        else if (pattern instanceof PDFDict) this.shading(pattern.lookup(PDFName.of('Shading')), depth);
      });
      part('Font', (font) => (this.found.whole = this.isThere(font)));
      part('ExtGState', () => undefined);
    });
  }

  private readonly there = new Map<PDFObject, boolean>();
  /** Whether all that a font or an image is made of is in the file. */
  private isThere(object: PDFObject): boolean {
    const known = this.there.get(object);
    if (known !== undefined) return known;
    this.there.set(object, true);
    const dict = object instanceof PDFRawStream ? object.dict : object;
    const parts =
      dict instanceof PDFArray
        ? dict.asArray()
        : dict instanceof PDFDict
          ? VITAL.flatMap((key) => dict.get(key) ?? [])
          : [];
    const whole = parts.every((part) => {
      if (!(part instanceof PDFRef)) return part instanceof PDFArray ? this.isThere(part) : true;
      const found = this.context.lookup(part);
      return found !== undefined && found !== PDFNull && this.isThere(found);
    });
    this.there.set(object, whole);
    return whole;
  }

  private form(stream: PDFRawStream, depth: number): void {
    this.once(stream, () => {
      const own = stream.dict.get(PDFName.of('Resources'));
      this.found.borrows = !own;
      this.resources(own, depth + 1);
      this.operators(stream);
      this.settle([stream]);
    });
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
    if (name === 'Separation') this.spot(space.lookup(1), mixOf(space));
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

  private spot(value: PDFObject | undefined, mix?: Ink['mix']): void {
    if (!(value instanceof PDFName)) return;
    const name = textOfName(value);
    if (name === 'All' || name === 'None') return;
    if (CMYK.includes(name)) this.process('CMYK');
    else this.keep(this.found, { name, kind: 'spot', ...(mix ? { mix } : {}) });
  }

  private process(name: string | undefined): void {
    if (name) this.keep(this.found, { name, kind: 'process' });
  }

  private operators(stream: PDFObject | undefined): void {
    const { bytes, whole } = decoded(stream);
    this.found.whole &&= whole;
    if (stream) this.sums?.note(stream, bytes);
    if (this.only === 'spots') return;
    const text = textOf(bytes, [0, bytes.length]);
    // Words that look like such operators are found much faster than operations are read; those that are some come early.
    const wanted = new Set([...text.matchAll(LOOKS_LIKE_COLOUR)].map(([word]) => DEVICE_OPERATORS.get(word)));
    if (!wanted.size) return;
    for (const { operator } of operationsOf(text)) {
      const device = DEVICE_OPERATORS.get(operator);
      if (!device || !wanted.delete(device)) continue;
      this.process(OF_DEVICE[device]);
      if (!wanted.size) return;
    }
  }

  private each(
    dict: PDFDict,
    key: string,
    visit: (value: PDFObject | undefined, name: string) => void,
  ): void {
    const entries = dict.lookup(PDFName.of(key));
    if (!entries && dict.has(PDFName.of(key))) this.found.broken.add(key + ANY);
    if (entries instanceof PDFDict)
      for (const [name, value] of entries.entries()) visit(this.context.lookup(value), name.asString());
  }
}

/** The process mix that stands for a spot ink at full tint, where its space says one plainly: an exponential function to CMYK (7.10.3). */
function mixOf(space: PDFArray): Ink['mix'] {
  const transform = space.lookup(3);
  const full = transform instanceof PDFDict ? transform.lookup(PDFName.of('C1')) : undefined;
  if (space.lookup(2) !== PDFName.of('DeviceCMYK') || !(full instanceof PDFArray) || full.size() !== 4)
    return undefined;
  const [c, m, y, k] = full.asArray().map((part) => (part instanceof PDFNumber ? part.asNumber() : 0));
  return [c!, m!, y!, k!];
}
