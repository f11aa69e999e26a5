import {
  PDFName,
  PDFNull,
  PDFPageLeaf,
  type PDFContext,
  type PDFDict,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { eachEntry, standsAt, textOf } from '../raw/scan';

/** Makes the value that begins at a place. */
export interface Maker {
  make: (bytes: Uint8Array, start: number) => PDFObject;
}

/** What the library's dictionaries keep to themselves. */
interface Inside {
  dict: Map<PDFName, PDFObject>;
}
const Leaf = PDFPageLeaf as unknown as new (
  map: Map<PDFName, PDFObject> | undefined,
  context: PDFContext,
) => PDFPageLeaf;

/** In most files all pages have the same entries, or some have one more. */
const MOST_ALIKE = 4;
const NUMBER_SIGN = 0x23;
/** Stands for a value that nobody asked for. */
const LIES = Symbol('lies');

/** The names of a page's entries, and behind them of those that it was given; shared by pages that have the same. */
class Layout {
  /** How many stand in the file. */
  readonly lying: number;
  private readonly places = new Map<PDFName, number>();

  constructor(readonly names: PDFName[]) {
    this.lying = names.length;
    names.forEach((name, n) => this.places.set(name, n));
  }

  /** Whether no name stands twice. */
  get plain(): boolean {
    return this.places.size === this.names.length;
  }

  place(name: PDFName): number | undefined {
    return this.places.get(name);
  }

  /** The place of a name, a new one if it has none yet. */
  placed(name: PDFName): number {
    const known = this.places.get(name);
    if (known !== undefined) return known;
    this.places.set(name, this.names.length);
    return this.names.push(name) - 1;
  }
}

/**
 * A page whose entries are made when they are asked for. Most pages are given boxes and nothing else: what they have besides goes
 * out as it lies.
 */
export class PageAsItLies extends Leaf {
  /** By the layout: what was asked for or given, undefined where there is nothing or it was taken out. */
  private readonly held: (PDFObject | typeof LIES | undefined)[];
  private whole: Map<PDFName, PDFObject> | undefined;

  private constructor(
    context: PDFContext,
    readonly bytes: Uint8Array,
    private readonly start: number,
    /** Where the name of each entry begins, without its slash, and ends, and where its value does. */
    private readonly places: readonly number[],
    private readonly layout: Layout,
    private readonly maker: Maker,
  ) {
    super(undefined, context);
    this.held = new Array<typeof LIES>(layout.lying).fill(LIES);
  }

  /**
   * The page that begins there; undefined if something else does, the name of an entry has characters written as #xx, or one stands
   * twice. Pages that were read before may have the same entries: those of each kind are in `before`, and a new one is added.
   */
  static at(
    context: PDFContext,
    bytes: Uint8Array,
    start: number,
    maker: Maker,
    before: PageAsItLies[],
  ): PageAsItLies | undefined {
    if (!standsAt(bytes, start, '<<')) return undefined;
    const places: number[] = [];
    let isPage = false;
    eachEntry(bytes, start, (name, nameEnd, from, to) => {
      places.push(name, nameEnd, from, to);
      if (nameEnd - name === 4 && to - from === 5 && standsAt(bytes, name, 'Type'))
        isPage = standsAt(bytes, from, '/Page');
    });
    if (!isPage) return undefined;
    const like = before.find((page) => page.isNamedAs(bytes, places));
    const layout = like?.layout ?? layoutOf(bytes, places);
    if (!layout) return undefined;
    const page = new PageAsItLies(context, bytes, start, places, layout, maker);
    if (!like) {
      before.unshift(page);
      before.splice(MOST_ALIKE);
    }
    return page;
  }

  /** Whether entries that stand in these places have the same names in the same order. */
  private isNamedAs(bytes: Uint8Array, places: readonly number[]): boolean {
    if (places.length !== this.places.length) return false;
    for (let n = 0; n < places.length; n += 4) {
      const [from, to, own] = [places[n]!, places[n + 1]!, this.places[n]!];
      if (to - from !== this.places[n + 1]! - own) return false;
      for (let at = from; at < to; at++) if (bytes[at] !== this.bytes[own + at - from]) return false;
    }
    return true;
  }

  /** Whether nothing has asked for all of it yet. */
  get lies(): boolean {
    return this.whole === undefined;
  }

  /** All entries, from now on kept as the library keeps them. */
  entriesMade(): Map<PDFName, PDFObject> {
    if (this.whole) return this.whole;
    const { dict } = this.maker.make(this.bytes, this.start) as PDFDict as unknown as Inside;
    this.held.forEach((value, n) => {
      const name = this.layout.names[n]!;
      if (value === undefined) dict.delete(name);
      else if (value !== LIES) dict.set(name, value);
    });
    return (this.whole = dict);
  }

  override get(name: PDFName, preserveNull = false): PDFObject | undefined {
    if (this.whole) return super.get(name, preserveNull);
    const n = this.layout.place(name);
    if (n === undefined) return undefined;
    let value = this.held[n];
    if (value === LIES) this.held[n] = value = this.maker.make(this.bytes, this.places[4 * n + 2]!);
    return value === PDFNull && !preserveNull ? undefined : value;
  }

  override has(name: PDFName): boolean {
    if (this.whole) return super.has(name);
    const n = this.layout.place(name);
    const value = n === undefined ? undefined : this.held[n];
    // A value that is null reads as none.
    if (value === LIES) return !standsAt(this.bytes, this.places[4 * n! + 2]!, 'null');
    return value !== undefined && value !== PDFNull;
  }

  override set(name: PDFName, value: PDFObject): void {
    if (this.whole) super.set(name, value);
    else this.held[this.layout.placed(name)] = value;
  }

  override delete(name: PDFName): boolean {
    if (this.whole) return super.delete(name);
    const n = this.layout.place(name);
    if (n === undefined || this.held[n] === undefined) return false;
    this.held[n] = undefined;
    return true;
  }

  /** Tells of the entries that nobody asked for as places in its bytes, of those that stand next to each other at once, and of each other one. */
  eachPart(
    lying: (start: number, end: number) => void,
    known: (name: PDFName, value: PDFObject) => void,
  ): void {
    const { places, held } = this;
    const { names, lying: count } = this.layout;
    for (let n = 0; n < count; n++) {
      if (held[n] !== LIES) continue;
      const from = n;
      while (n + 1 < count && held[n + 1] === LIES) n++;
      lying(places[4 * from]! - 1, places[4 * n + 3]!);
    }
    for (let n = 0; n < held.length; n++) {
      const value = held[n];
      if (value && value !== LIES) known(names[n]!, value);
    }
  }
}

function layoutOf(bytes: Uint8Array, places: readonly number[]): Layout | undefined {
  const names: PDFName[] = [];
  for (let n = 0; n < places.length; n += 4) {
    for (let at = places[n]!; at < places[n + 1]!; at++) if (bytes[at] === NUMBER_SIGN) return undefined;
    names.push(PDFName.of(textOf(bytes, [places[n]!, places[n + 1]!])));
  }
  const layout = new Layout(names);
  return layout.plain ? layout : undefined;
}

// The library's dictionaries keep their entries in a field; here it is filled when it is first looked into.
Object.defineProperty(PageAsItLies.prototype, 'dict', {
  get: PageAsItLies.prototype.entriesMade,
  set: () => undefined,
});
