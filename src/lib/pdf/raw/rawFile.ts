import { decodeFilters } from '../objects/decodeStream';
import { inflated, MOST_UNPACKED } from '../objects/inflate';
import {
  dictEntries,
  dictEntry,
  eachReference,
  RawUnfit,
  readArray,
  readDict,
  readInteger,
  readReference,
  skipRegular,
  skipSpace,
  skipValue,
  standsAt,
  standsWithin,
  textOf,
  type Range,
} from './scan';
import { entryAt, entryOf, withRoom } from '../../core/entries';

/** An object where it lies: the bytes that hold it (the file's own, or an unpacked object stream), its value, its stream's data. */
export interface RawObject {
  bytes: Uint8Array;
  value: Range;
  data?: Range;
  /** Where it is not 0. */
  generation?: number;
}

/** A value in the bytes that hold it. */
export interface Placed {
  bytes: Uint8Array;
  range: Range;
}

/** A page: where its resources, its transparency group and its content stand. */
export interface RawPage {
  resources: Placed | undefined;
  group: Placed | undefined;
  contents: Placed | undefined;
}

/** An end of the page tree, and the resources that it inherits. */
interface Leaf {
  node: RawObject;
  above: Placed | undefined;
}

/** Why an encrypted file is unfit. */
export const ENCRYPTED = 'encrypted';
const MOST_OBJECTS = 8_388_607;
const DEEPEST = 64;
const OF_PAGES = ['Resources', 'Group', 'Contents'];
const [FREE, PLAIN, PACKED] = [0, 1, 2];

/**
 * A PDF read where it lies, through its cross-reference tables and streams (ISO 32000-1, 7.5.4, 7.5.8), each object
 * only when it is asked for. Throws RawUnfit for what it does not read: encrypted, damaged or oddly packed files.
 */
export class RawFile {
  readonly trailer: Map<string, Range>;
  readonly size: number;
  /** The largest number that an object of it has. */
  largest = 0;
  private kinds = new Uint8Array(1024);
  /** Offset of a plain object; number of the object stream of a packed one. */
  private places = new Float64Array(1024);
  /** Where the value of each object that was read begins and ends, and its data. */
  private spans = new Float64Array();
  private readonly generations = new Map<number, number>();
  private found: readonly Leaf[] | undefined;
  private all: readonly number[] | undefined;
  private packs = new Map<number, { bytes: Uint8Array; places: Map<number, number> }>();
  private unpackedBytes = 0;

  constructor(readonly bytes: Uint8Array) {
    const tail = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
    const at = tail.lastIndexOf('startxref');
    const start = at < 0 ? undefined : readInteger(bytes, skipSpace(bytes, at + 9));
    if (!start) throw new RawUnfit('no startxref');
    this.trailer = this.readSections(start.value);
    if (this.trailer.has('Encrypt')) throw new RawUnfit(ENCRYPTED);
    const size = this.trailer.get('Size');
    this.size = size ? (readInteger(bytes, size[0])?.value ?? 0) : 0;
    if (!this.size || this.size > MOST_OBJECTS) throw new RawUnfit('size');
  }

  /** The numbers of all objects that the trailer leads to. Reads each, so that what is damaged shows before anything is made of the file. */
  reached(): readonly number[] {
    return (this.all ??= this.walkedAll());
  }

  private walkedAll(): number[] {
    const met = new Uint8Array(this.largest + 1);
    this.spans = new Float64Array(4 * (this.largest + 1));
    const waiting: number[] = [];
    const note = (number: number) => {
      if (!this.kinds[number] || met[number]) return;
      met[number] = 1;
      waiting.push(number);
    };
    for (const key of ['Root', 'Info']) {
      const place = this.trailer.get(key);
      if (place) skipValue(this.bytes, place[0], note);
    }
    for (let number = waiting.pop(); number !== undefined; number = waiting.pop())
      this.object(number, undefined, note);
    return Array.from(met.keys()).filter((number) => met[number]);
  }

  /**
   * An object by its number, and by its generation where that is said; undefined if there is none (it reads as null, 7.3.10).
   * `met` hears of what it refers to.
   */
  object(number: number, generationAsked?: number, met?: (number: number) => void): RawObject | undefined {
    const kept = met ? undefined : this.kept(number, generationAsked);
    if (kept) return kept;
    const place = this.place(number, generationAsked);
    if (!place) return undefined;
    const { bytes, start, generation } = place;
    const found: RawObject = { bytes, value: [start, skipValue(bytes, start, met)] };
    if (generation) found.generation = generation;
    const data = this.dataAfter(bytes, found.value);
    if (data) found.data = data;
    this.keep(number, found);
    return found;
  }

  private keep(number: number, { value, data, generation }: RawObject): void {
    const { spans } = this;
    const at = 4 * number;
    if (at >= spans.length) return;
    spans[at] = value[0];
    spans[at + 1] = value[1];
    if (data) {
      spans[at + 2] = data[0];
      spans[at + 3] = data[1];
    }
    if (generation) this.generations.set(number, generation);
  }

  /** An object that was read before; undefined also where it was not. */
  private kept(number: number, generationAsked?: number): RawObject | undefined {
    const { spans } = this;
    const at = 4 * number;
    const generation = this.generations.get(number) ?? 0;
    if (!spans[at] || (generationAsked ?? generation) !== generation) return undefined;
    const bytes = this.kinds[number] === PACKED ? this.packs.get(this.places[number]!)!.bytes : this.bytes;
    const found: RawObject = { bytes, value: [spans[at], spans[at + 1]!] };
    if (generation) found.generation = generation;
    if (spans[at + 3]) found.data = [spans[at + 2]!, spans[at + 3]!];
    return found;
  }

  /** Where the value of an object begins, without reading on. */
  place(
    number: number,
    generationAsked?: number,
  ): { bytes: Uint8Array; start: number; generation: number } | undefined {
    const kind = this.kinds[number];
    if (kind === PACKED) return generationAsked ? undefined : this.packedPlace(number);
    if (kind !== PLAIN) return undefined;
    const { bytes } = this;
    let at = skipSpace(bytes, this.places[number]!);
    const own = readInteger(bytes, at);
    const generation = own && readInteger(bytes, skipSpace(bytes, own.end));
    if (own?.value !== number || !generation) throw new RawUnfit(`object ${number} is not at its place`);
    if (generationAsked !== undefined && generation.value !== generationAsked) return undefined;
    at = skipSpace(bytes, generation.end);
    if (!standsAt(bytes, at, 'obj')) throw new RawUnfit(`object ${number} is not at its place`);
    return { bytes, start: skipSpace(bytes, at + 3), generation: generation.value };
  }

  /** The data of the stream whose dictionary this is; undefined if it is none. */
  dataAfter(bytes: Uint8Array, dict: Range): Range | undefined {
    // Streams are never packed (7.5.7).
    const after = bytes === this.bytes ? skipSpace(bytes, dict[1]) : -1;
    return standsAt(bytes, after, 'stream') ? this.dataOf(dict, after + 6) : undefined;
  }

  /** Follows references until there is a value. */
  resolve(bytes: Uint8Array, range: Range): RawObject | undefined {
    let found: RawObject = { bytes, value: range };
    for (let depth = 0; depth < DEEPEST; depth++) {
      const reference = readReference(found.bytes, found.value[0]);
      if (!reference || reference.end !== found.value[1]) return found;
      const target = this.object(reference.number);
      if (!target) return undefined;
      found = target;
    }
    throw new RawUnfit('references go round');
  }

  /** The bytes of a stream, unpacked; of a `damaged` one as much as viewers see. */
  unpack({ bytes, value, data }: RawObject, damaged = false): Uint8Array {
    if (!data) return new Uint8Array();
    const dict = readDict(bytes, value[0]);
    const filter = dict.get('Filter') && this.resolve(bytes, entryOf(dict, 'Filter'));
    const packed = bytes.subarray(data[0], data[1]);
    if (!filter) return packed;
    const names = textOf(filter.bytes, filter.value).match(/\/[^\s/[\]]+/g) ?? [];
    const parameters = dict.get('DecodeParms') && this.resolve(bytes, entryOf(dict, 'DecodeParms'));
    if (names.length !== 1 || names[0] !== '/FlateDecode') {
      if (parameters) throw new RawUnfit(`filters ${names.join(' ')} with parameters`);
      return unpacked(() =>
        decodeFilters(
          packed,
          names.map((name) => name.slice(1)),
        ),
      );
    }
    const { bytes: plain, whole } = inflated(packed);
    if (!whole && !damaged) throw new RawUnfit('does not unpack');
    return parameters
      ? unpredict(plain, readDict(parameters.bytes, parameters.value[0]), parameters.bytes)
      : plain;
  }

  /** What a form needs of a page, by its index; of what it inherits (7.7.3.4) the resources. */
  page(index: number): RawPage {
    const { node, above } = entryAt(this.leaves(), index);
    const { bytes } = node;
    const found = dictEntries(bytes, node.value[0], OF_PAGES);
    const placed = (n: number): Placed | undefined => found[n] && { bytes, range: found[n] };
    return { resources: placed(0) ?? above, group: placed(1), contents: placed(2) };
  }

  /** The ends of the page tree, in order: nothing is read of a page but that it has no kids. */
  leaves(): readonly Leaf[] {
    return (this.found ??= this.walked());
  }

  private walked(): Leaf[] {
    const found: Leaf[] = [];
    const walk = (bytes: Uint8Array, range: Range, above: Placed | undefined, depth: number): void => {
      const node = this.resolve(bytes, range);
      if (!node || depth > DEEPEST || !standsAt(node.bytes, node.value[0], '<<'))
        throw new RawUnfit('page tree');
      // Of a page, which most are, no entries are read.
      const [list, own] = standsWithin(node.bytes, node.value, '/Kids')
        ? dictEntries(node.bytes, node.value[0], ['Kids', 'Resources'])
        : [];
      const kids = list && this.resolve(node.bytes, list);
      if (!kids) {
        found.push({ node, above });
        return;
      }
      const resources = own ? { bytes: node.bytes, range: own } : above;
      for (const kid of readArray(kids.bytes, kids.value[0])) walk(kids.bytes, kid, resources, depth + 1);
    };
    const pages = this.catalog().get('Pages');
    if (!pages) throw new RawUnfit('no pages');
    walk(pages.bytes, pages.range, undefined, 0);
    return found;
  }

  /** How many pages the page tree says it has; undefined if it does not say. */
  pageCount(): number | undefined {
    const pages = this.catalog().get('Pages');
    const root = pages && this.resolve(pages.bytes, pages.range);
    const entry = root && dictEntry(root.bytes, root.value[0], 'Count');
    const count = entry && this.resolve(root.bytes, entry);
    return count && readInteger(count.bytes, count.value[0])?.value;
  }

  /** The entries of the document's catalog. */
  catalog(): Map<string, Placed> {
    const root = this.trailer.get('Root') && this.resolve(this.bytes, entryOf(this.trailer, 'Root'));
    if (!root) throw new RawUnfit('no catalog');
    return this.entries(root);
  }

  private entries({ bytes, value }: RawObject): Map<string, Placed> {
    return new Map([...readDict(bytes, value[0])].map(([key, range]) => [key, { bytes, range }]));
  }

  private readSections(first: number): Map<string, Range> {
    const seen = new Set<number>();
    const waiting = [first];
    let trailer: Map<string, Range> | undefined;
    for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
      if (seen.has(at)) throw new RawUnfit('cross-references go round');
      seen.add(at);
      const entries = this.readSection(skipSpace(this.bytes, at));
      trailer ??= entries;
      for (const key of ['XRefStm', 'Prev']) {
        const next = entries.get(key) && readInteger(this.bytes, entryOf(entries, key)[0]);
        if (next) waiting.push(next.value);
      }
    }
    return trailer!;
  }

  private readSection(at: number): Map<string, Range> {
    const { bytes } = this;
    if (!standsAt(bytes, at, 'xref')) return this.readXrefStream(at);
    at = skipSpace(bytes, at + 4);
    for (let from = readInteger(bytes, at); from; from = readInteger(bytes, at)) {
      const count = readInteger(bytes, skipSpace(bytes, from.end));
      if (!count) throw new RawUnfit('cross-reference table');
      at = skipSpace(bytes, count.end);
      for (let i = 0; i < count.value; i++, at += 20) {
        const kind = bytes[at + 17];
        if (kind !== 110 && kind !== 102) throw new RawUnfit('cross-reference entry');
        if (kind === 110)
          this.note(from.value + i, PLAIN, readInteger(bytes, skipSpace(bytes, at))?.value ?? 0);
        else this.note(from.value + i, FREE, 0);
      }
      at = skipSpace(bytes, at);
    }
    if (!standsAt(bytes, at, 'trailer')) throw new RawUnfit('no trailer');
    return readDict(bytes, skipSpace(bytes, at + 7));
  }

  private readXrefStream(at: number): Map<string, Range> {
    const { bytes } = this;
    const number = readInteger(bytes, at);
    const generation = number && readInteger(bytes, skipSpace(bytes, number.end));
    const word = generation && skipSpace(bytes, generation.end);
    if (word === undefined || !standsAt(bytes, word, 'obj')) throw new RawUnfit('cross-reference stream');
    const start = skipSpace(bytes, word + 3);
    const value: Range = [start, skipValue(bytes, start)];
    const after = skipSpace(bytes, value[1]);
    const dict = readDict(bytes, start);
    const plain = this.unpack({ bytes, value, data: this.dataOf(value, after + 6) });
    const numbers = (key: string) =>
      dict.has(key)
        ? readArray(bytes, entryOf(dict, key)[0]).map(([from]) => readInteger(bytes, from)?.value ?? 0)
        : undefined;
    const [w0, w1, w2] = numbers('W') ?? [];
    if (w0 === undefined || w1 === undefined || w2 === undefined)
      throw new RawUnfit('cross-reference widths');
    const index = numbers('Index') ?? [0, readInteger(bytes, dict.get('Size')?.[0] ?? 0)?.value ?? 0];
    const field = (from: number, width: number) => {
      let sum = 0;
      for (let at = from; at < from + width; at++) sum = sum * 256 + plain[at]!;
      return sum;
    };
    let place = 0;
    for (let i = 0; i + 1 < index.length; i += 2)
      for (
        let n = 0;
        n < entryAt(index, i + 1) && place + w0 + w1 + w2 <= plain.length;
        n++, place += w0 + w1 + w2
      )
        this.note(entryAt(index, i) + n, w0 ? field(place, w0) : PLAIN, field(place + w0, w1));
    return dict;
  }

  /** Notes where an object is, unless a newer section said so already. */
  private note(number: number, kind: number, place: number): void {
    if (number > MOST_OBJECTS) throw new RawUnfit('object number');
    this.kinds = withRoom(this.kinds, number);
    this.places = withRoom(this.places, number);
    this.largest = Math.max(this.largest, number);
    // 255 marks a free entry that was seen, so that an older section cannot bring the object back.
    if (this.kinds[number] !== 0) return;
    this.kinds[number] = kind === FREE ? 255 : kind;
    this.places[number] = place;
  }

  private dataOf(dict: Range, after: number): Range {
    const { bytes } = this;
    let start = after;
    if (bytes[start] === 13) start++;
    if (bytes[start] === 10) start++;
    const entry = dictEntry(bytes, dict[0], 'Length');
    const length = entry && this.resolve(bytes, entry);
    const count = length && readInteger(length.bytes, length.value[0]);
    if (!count) throw new RawUnfit('stream length');
    const end = start + count.value;
    const word = skipSpace(bytes, end);
    if (!standsAt(bytes, word, 'endstream')) throw new RawUnfit('stream does not end where it says');
    return [start, end];
  }

  private packedPlace(number: number): { bytes: Uint8Array; start: number; generation: number } {
    const holder = this.places[number]!;
    let pack = this.packs.get(holder);
    if (!pack) {
      const stream = this.kinds[holder] === PLAIN ? this.object(holder) : undefined;
      if (!stream?.data) throw new RawUnfit('object stream');
      const dict = readDict(stream.bytes, stream.value[0]);
      const bytes = this.unpack(stream);
      if ((this.unpackedBytes += bytes.length) > MOST_UNPACKED)
        throw new RawUnfit('object streams too large');
      const whole = (key: string) => readInteger(stream.bytes, dict.get(key)?.[0] ?? -1)?.value;
      const [count, first] = [whole('N'), whole('First')];
      if (count === undefined || first === undefined) throw new RawUnfit('object stream');
      const places = new Map<number, number>();
      for (let n = 0, at = skipSpace(bytes, 0); n < count; n++) {
        const [own, offset] = [
          readInteger(bytes, at),
          readInteger(bytes, skipSpace(bytes, skipRegular(bytes, at))),
        ];
        if (!own || !offset) throw new RawUnfit('object stream');
        places.set(own.value, first + offset.value);
        at = skipSpace(bytes, offset.end);
      }
      pack = { bytes, places };
      this.packs.set(holder, pack);
    }
    const at = pack.places.get(number);
    if (at === undefined) throw new RawUnfit(`object ${number} is not in its stream`);
    return { bytes: pack.bytes, start: skipSpace(pack.bytes, at), generation: 0 };
  }
}

/** What unpacking gives; data that do not unpack are not read. */
function unpacked(unpack: () => Uint8Array): Uint8Array {
  try {
    return unpack();
  } catch (error) {
    throw new RawUnfit(`does not unpack: ${String(error)}`);
  }
}

/** Undoes the PNG predictors (7.4.4.4), as cross-reference streams use them. */
function unpredict(plain: Uint8Array, parameters: Map<string, Range>, bytes: Uint8Array): Uint8Array {
  const whole = (key: string, otherwise: number) =>
    parameters.has(key) ? (readInteger(bytes, entryOf(parameters, key)[0])?.value ?? otherwise) : otherwise;
  const predictor = whole('Predictor', 1);
  if (predictor === 1) return plain;
  if (predictor < 10 || whole('BitsPerComponent', 8) !== 8 || whole('Colors', 1) !== 1)
    throw new RawUnfit('predictor');
  const width = whole('Columns', 1);
  const rows = Math.floor(plain.length / (width + 1));
  const out = new Uint8Array(rows * width);
  for (let row = 0; row < rows; row++) {
    const kind = plain[row * (width + 1)];
    for (let i = 0; i < width; i++) {
      const raw = plain[row * (width + 1) + 1 + i]!;
      const left = i ? out[row * width + i - 1]! : 0;
      const up = row ? out[(row - 1) * width + i]! : 0;
      const corner = row && i ? out[(row - 1) * width + i - 1]! : 0;
      const guess =
        kind === 0
          ? 0
          : kind === 1
            ? left
            : kind === 2
              ? up
              : kind === 3
                ? (left + up) >> 1
                : paeth(left, up, corner);
      out[row * width + i] = raw + guess;
    }
  }
  return out;
}

function paeth(left: number, up: number, corner: number): number {
  const [a, b, c] = [Math.abs(up - corner), Math.abs(left - corner), Math.abs(left + up - 2 * corner)];
  return a <= b && a <= c ? left : b <= c ? up : corner;
}

/** Copies a range with its references renumbered, and names each object that it refers to. */
export function rebased(
  bytes: Uint8Array,
  range: Range,
  base: number,
  met: (number: number) => void,
): Uint8Array | string {
  const parts: string[] = [];
  let from = range[0];
  eachReference(bytes, range, (number, generation, at, end) => {
    met(number);
    // What is written has generation 0 throughout.
    if (!base && !generation) return;
    parts.push(textOf(bytes, [from, at]), `${base + number} 0 R`);
    from = end;
  });
  if (from === range[0]) return bytes.subarray(range[0], range[1]);
  parts.push(textOf(bytes, [from, range[1]]));
  return parts.join('');
}
