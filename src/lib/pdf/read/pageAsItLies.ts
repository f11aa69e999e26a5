import {
  PDFNull,
  PDFPageLeaf,
  type PDFContext,
  type PDFDict,
  type PDFName,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { eachEntry, standsAt, type Range } from '../raw/scan';

/** Makes the value that begins at a place. */
type Make = (start: number) => PDFObject;

/** What the library's dictionaries keep to themselves. */
interface Inside {
  dict: Map<PDFName, PDFObject>;
}
const Leaf = PDFPageLeaf as unknown as new (
  map: Map<PDFName, PDFObject> | undefined,
  context: PDFContext,
) => PDFPageLeaf;

const NUMBER_SIGN = 0x23;
const isText = (bytes: Uint8Array, [from, to]: Range, text: string): boolean =>
  to - from === text.length && standsAt(bytes, from, text);

/**
 * A page whose entries are made when they are asked for. Most pages are given boxes and nothing else: what they have besides goes
 * out as it lies.
 */
export class PageAsItLies extends Leaf {
  /** Entries that were asked for or given; undefined where one was taken out. */
  private readonly known = new Map<PDFName, PDFObject | undefined>();
  private whole: Map<PDFName, PDFObject> | undefined;

  private constructor(
    context: PDFContext,
    readonly bytes: Uint8Array,
    private readonly start: number,
    /** Where the name of each entry begins, without its slash, and ends, and where its value does. */
    private readonly places: readonly number[],
    private readonly make: Make,
  ) {
    super(undefined, context);
  }

  /** The page that begins there; undefined if something else does, or the name of an entry has characters written as #xx. */
  static at(context: PDFContext, bytes: Uint8Array, start: number, make: Make): PageAsItLies | undefined {
    if (!standsAt(bytes, start, '<<')) return undefined;
    const places: number[] = [];
    let plain = true;
    let isPage = false;
    eachEntry(bytes, start, (name, nameEnd, from, to) => {
      places.push(name, nameEnd, from, to);
      for (let at = name; at < nameEnd; at++) plain &&= bytes[at] !== NUMBER_SIGN;
      if (isText(bytes, [name, nameEnd], 'Type')) isPage = isText(bytes, [from, to], '/Page');
    });
    return plain && isPage ? new PageAsItLies(context, bytes, start, places, make) : undefined;
  }

  /** Whether nothing has asked for all of it yet. */
  get lies(): boolean {
    return this.whole === undefined;
  }

  /** All entries, from now on kept as the library keeps them. */
  entriesMade(): Map<PDFName, PDFObject> {
    if (this.whole) return this.whole;
    const { dict } = this.make(this.start) as PDFDict as unknown as Inside;
    for (const [name, value] of this.known)
      if (value) dict.set(name, value);
      else dict.delete(name);
    return (this.whole = dict);
  }

  override get(name: PDFName, preserveNull = false): PDFObject | undefined {
    if (this.whole) return super.get(name, preserveNull);
    if (!this.known.has(name)) this.known.set(name, this.read(name));
    const value = this.known.get(name);
    return value === PDFNull && !preserveNull ? undefined : value;
  }

  override has(name: PDFName): boolean {
    if (this.whole) return super.has(name);
    if (this.known.has(name)) return this.get(name) !== undefined;
    const at = this.find(name);
    // A value that is null reads as none.
    return at !== undefined && !standsAt(this.bytes, at, 'null');
  }

  override set(name: PDFName, value: PDFObject): void {
    if (this.whole) super.set(name, value);
    else this.known.set(name, value);
  }

  override delete(name: PDFName): boolean {
    if (this.whole) return super.delete(name);
    const was = this.get(name, true) !== undefined;
    this.known.set(name, undefined);
    return was;
  }

  /** Tells of each entry that nobody asked for, with its name, as a place in its bytes, and of each other one. */
  eachPart(
    lying: (start: number, end: number) => void,
    known: (name: PDFName, value: PDFObject) => void,
  ): void {
    const { places } = this;
    for (let n = 0; n < places.length; n += 4) if (!this.isKnown(n)) lying(places[n]! - 1, places[n + 3]!);
    for (const [name, value] of this.known) if (value) known(name, value);
  }

  private read(name: PDFName): PDFObject | undefined {
    const at = this.find(name);
    return at === undefined ? undefined : this.make(at);
  }

  /** Where the value of an entry begins. */
  private find(name: PDFName): number | undefined {
    const written = name.asString();
    // Of a name that stands twice the last one counts.
    for (let n = this.places.length - 4; n >= 0; n -= 4)
      if (this.isNamed(n, written)) return this.places[n + 2];
    return undefined;
  }

  private isKnown(n: number): boolean {
    for (const name of this.known.keys()) if (this.isNamed(n, name.asString())) return true;
    return false;
  }

  /** `written` has its slash. */
  private isNamed(n: number, written: string): boolean {
    const [from, to] = [this.places[n]!, this.places[n + 1]!];
    return to - from + 1 === written.length && standsAt(this.bytes, from - 1, written);
  }
}

// The library's dictionaries keep their entries in a field; here it is filled when it is first looked into.
Object.defineProperty(PageAsItLies.prototype, 'dict', {
  get: PageAsItLies.prototype.entriesMade,
  set: () => undefined,
});
