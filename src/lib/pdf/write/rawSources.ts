import { deflateSync } from 'node:zlib';
import type { InkChange } from '../../core/model/page';
import { mayPrint, type Surveys } from '../../core/model/survey';
import type { ByteOutput, ObjectTable, PdfVersion } from '../objects/byteOutput';
import { renameInText } from './renameInText';
import { rawFileOf, readablePdf } from '../read/load';
import { PdfError } from '../objects/pdfError';
import { tidyPdf } from '../read/tidy';
import { rebased, type Placed, type RawFile, type RawObject } from '../raw/rawFile';
import { dictEntries, RawUnfit, readArray, readDict, standsAt, textOf, type Range } from '../raw/scan';
import { entryAt, entryOf, firstOf } from '../../core/entries';

const OPEN_SQUARE = 0x5b;
const FILTER_KEYS = ['Filter', 'DecodeParms'];
const FLATE = Buffer.from('/FlateDecode');

/** A source opened where it lies. Its object n becomes object `base + n` of the output. */
export interface RawSource {
  file: RawFile;
  base: number;
  pages: number;
}

/** A page's content: ready data if there is one stream or none, else the streams to be joined. */
interface Content {
  data?: Placed;
  filter: [string, Placed][];
  joined?: RawObject[];
}

/** The sources of a sheet PDF, and the objects of them that it needs. */
export class RawSources {
  private readonly byId = new Map<string, RawSource>();
  private readonly wanted: [RawSource, number][] = [];
  private readonly met = new Set<number>();
  private next = 1;
  version: PdfVersion = '1.7';

  /** `inks` are spot inks under other names. */
  private constructor(private readonly inks: readonly InkChange[]) {}

  /** Opens sources, each once, in order of first use. A file that cannot be read where it lies, or has annotations that print, is written plainly first, those as part of their pages. Throws PdfError. */
  static async open(
    uses: ReadonlySet<string>,
    read: (source: string) => Promise<Uint8Array>,
    surveys: Surveys,
    inks: readonly InkChange[] = [],
  ): Promise<RawSources> {
    const sources = new RawSources(inks);
    for (const id of uses) {
      const { bytes } = await readablePdf(await read(id));
      const source =
        (mayPrint(surveys[id]) ? undefined : sources.add(bytes)) ?? sources.add(await tidyPdf(bytes, true));
      if (!source) throw new PdfError('damaged');
      if (source.pages !== surveys[id]?.pages.length) throw new PdfError('source-changed');
      sources.byId.set(id, source);
      if (textOf(bytes, [0, 16]).includes('%PDF-2')) sources.version = '2.0';
    }
    return sources;
  }

  /** A number for a new object. */
  newNumber(): number {
    return this.next++;
  }

  /** Writes a source page as a Form XObject (ISO 32000-1, 8.10) in the page's own user space; its one content stream stays packed as it is. As a `group` it fades as a whole; with `ownPatterns` it shares no tiling pattern with others (see `hasPatterns`). */
  writeForm(
    id: string,
    index: number,
    bbox: string,
    out: ByteOutput,
    table: ObjectTable,
    group: boolean,
    ownPatterns = false,
  ): number {
    const source = entryOf(this.byId, id);
    const page = source.file.page(index);
    const content = contentOf(source.file, page.contents);
    const own =
      ownPatterns && page.resources ? this.withOwnPatterns(source, page.resources, out, table) : undefined;
    const { data, filter } = content.joined
      ? joinStreams(source.file, content.joined)
      : { data: content.data && bytesOf(content.data), filter: content.filter };
    const number = this.newNumber();
    table.begin(number);
    out.put(`<< /Type /XObject /Subtype /Form /BBox [${bbox}] /Resources `);
    out.put(own ?? (page.resources ? this.take(source, page.resources) : '<< >>'));
    for (const [key, entry] of [['Group', page.group] as const, ...filter]) {
      if (!entry) continue;
      out.put(` /${key} `);
      out.put(this.take(source, entry));
    }
    if (group && !page.group) out.put(' /Group << /S /Transparency >>');
    out.put(` /Length ${data?.length ?? 0} >>\nstream\n`);
    if (data) out.put(data);
    out.put('\nendstream');
    table.end();
    return number;
  }

  /**
   * Whether a page paints with tiling patterns, its forms included. Ghostscript and MuPDF draw such a pattern in step with where
   * its object was first used, not with the form that it is in (ISO 32000-1, 8.7.3.1): each place needs objects of its own.
   */
  hasPatterns(id: string, index: number): boolean {
    const source = entryOf(this.byId, id);
    const { resources } = source.file.page(index);
    return resources !== undefined && holdsPatterns(source.file, resources);
  }

  /** Resources with tiling patterns of their own, and with forms of their own where those have some; undefined if there is none. */
  private withOwnPatterns(
    source: RawSource,
    { bytes, range }: Placed,
    out: ByteOutput,
    table: ObjectTable,
    /** What forms became, by the references to them: each once, whatever refers to it, itself too. */
    met = new Map<string, string | undefined>(),
  ): string | undefined {
    const { file } = source;
    const found = file.resolve(bytes, range);
    const entries = found && dictOf(found);
    if (!found || !entries || !holdsPatterns(file, { bytes, range })) return undefined;
    const at = (place: Range, within = found) =>
      asText(this.take(source, { bytes: within.bytes, range: place }));
    const copy = (object: RawObject, dict: string): string => {
      const number = this.newNumber();
      table.begin(number);
      out.put(dict);
      out.putData(object.bytes.subarray(object.data![0], object.data![1]));
      table.end();
      return `${number} 0 R`;
    };
    const ownForm = (form: RawObject, reference: string): string | undefined => {
      if (met.has(reference)) return met.get(reference);
      met.set(reference, undefined);
      const dict = readDict(form.bytes, form.value[0]);
      const resources = dict.get('Resources');
      const own =
        resources && this.withOwnPatterns(source, { bytes: form.bytes, range: resources }, out, table, met);
      if (!own) return undefined;
      const made = copy(
        form,
        asDict(dict, (key, place) => (key === 'Resources' ? own : at(place, form))),
      );
      met.set(reference, made);
      return made;
    };
    return asDict(entries, (key, place) => {
      const inner = SHARED.includes(key) ? file.resolve(found.bytes, place) : undefined;
      const all = inner && dictOf(inner);
      if (!inner || !all) return at(place);
      return asDict(all, (_, one) => {
        const object = file.resolve(inner.bytes, one);
        const own =
          object?.data === undefined
            ? undefined
            : key === 'Pattern'
              ? copy(object, at(object.value, object))
              : ownForm(object, textOf(inner.bytes, one));
        return own ?? at(one, inner);
      });
    });
  }

  /** Writes every object that what was written so far refers to. */
  async writeWanted(out: ByteOutput, table: ObjectTable): Promise<void> {
    for (let want = this.wanted.pop(); want; want = this.wanted.pop()) {
      const [source, number] = want;
      const object = source.file.object(number);
      if (!object) continue;
      table.begin(source.base + number);
      out.put(this.take(source, { bytes: object.bytes, range: object.value }));
      if (object.data) out.putData(object.bytes.subarray(object.data[0], object.data[1]));
      table.end();
      if (out.waits) await out.drain();
    }
  }

  /** Catalog entries: the layers of all sources (8.11.4) and `own` ones, which show where they are not `hidden`, and the first source's output intent. */
  catalogEntries(own: readonly string[], hidden: readonly string[] = []): string {
    const sources = [...this.byId.values()];
    const layers = sources.flatMap((source) => {
      const entry = source.file.catalog().get('OCProperties');
      const found = entry && source.file.resolve(entry.bytes, entry.range);
      return found ? [{ source, bytes: found.bytes, dict: readDict(found.bytes, found.value[0]) }] : [];
    });
    const intent = sources[0]?.file.catalog().get('OutputIntents');
    const written = intent ? [`/OutputIntents ${asText(this.take(firstOf(sources), intent))}`] : [];
    if (layers.length || own.length) {
      const inside = (key: string) =>
        [...layers.map(({ source, bytes, dict }) => this.items(source, bytes, dict.get(key))), ...own].join(
          ' ',
        );
      const configs = layers.flatMap(({ source, bytes, dict }) => {
        const d = dict.get('D') && source.file.resolve(bytes, entryOf(dict, 'D'));
        return d ? [{ source, bytes: d.bytes, dict: readDict(d.bytes, d.value[0]) }] : [];
      });
      const ours = { ON: own.filter((each) => !hidden.includes(each)), OFF: hidden, Order: own, Locked: [] };
      const state = (['ON', 'OFF', 'Order', 'Locked'] as const).map(
        (key) =>
          `/${key} [${[...configs.map(({ source, bytes, dict }) => this.items(source, bytes, dict.get(key))), ...ours[key]].join(' ')}]`,
      );
      written.push(`/OCProperties << /OCGs [${inside('OCGs')}] /D << ${state.join(' ')} >> >>`);
    }
    return written.join(' ');
  }

  private add(bytes: Uint8Array): RawSource | undefined {
    try {
      const file = rawFileOf(bytes);
      file.reached();
      const source = { file, base: this.next - 1, pages: file.leaves().length };
      this.next += file.size;
      return source;
    } catch (error) {
      if (error instanceof RawUnfit || error instanceof RangeError) return undefined;
      throw error;
    }
  }

  private take(source: RawSource, { bytes, range }: Placed): string | Uint8Array {
    const written = rebased(bytes, range, source.base, (number) => {
      if (this.met.has(source.base + number)) return;
      this.met.add(source.base + number);
      this.wanted.push([source, number]);
    });
    return this.inks.length ? renameInText(asText(written), this.inks) : written;
  }

  /** What stands in an array, without its brackets; nothing if there is no array. */
  private items(source: RawSource, bytes: Uint8Array, range: Range | undefined): string {
    const array = range && source.file.resolve(bytes, range);
    return array?.bytes[array.value[0]] === OPEN_SQUARE
      ? readArray(array.bytes, array.value[0])
          .map((item) => asText(this.take(source, { bytes: array.bytes, range: item })))
          .join(' ')
      : '';
  }
}

/** What of a page's resources may be, or hold, tiling patterns. */
const SHARED = ['Pattern', 'XObject'];

const asDict = (dict: ReadonlyMap<string, Range>, said: (key: string, place: Range) => string): string =>
  `<< ${[...dict].map(([key, place]) => `/${key} ${said(key, place)}`).join(' ')} >>`;

/** Whether resources have tiling patterns, which are streams, or forms that have. */
function holdsPatterns(file: RawFile, { bytes, range }: Placed, met = new Set<string>()): boolean {
  const found = file.resolve(bytes, range);
  const entries = found && dictOf(found);
  if (!found || !entries) return false;
  return SHARED.some((key) => {
    const place = entries.get(key);
    const inner = place && file.resolve(found.bytes, place);
    const all = inner && dictOf(inner);
    if (!inner || !all) return false;
    return [...all.values()].some((one) => {
      const object = file.resolve(inner.bytes, one);
      if (object?.data === undefined) return false;
      if (key === 'Pattern') return true;
      const reference = textOf(inner.bytes, one);
      if (met.has(reference)) return false;
      met.add(reference);
      const resources = dictOf(object)?.get('Resources');
      return resources !== undefined && holdsPatterns(file, { bytes: object.bytes, range: resources }, met);
    });
  });
}
/** The entries of an object that is a dictionary, or a stream's. */
const dictOf = ({ bytes, value: [at] }: RawObject): Map<string, Range> | undefined =>
  standsAt(bytes, at, '<<') ? readDict(bytes, at) : undefined;

const bytesOf = ({ bytes, range }: Placed): Uint8Array => bytes.subarray(range[0], range[1]);
const asText = (piece: string | Uint8Array): string =>
  typeof piece === 'string' ? piece : textOf(piece, [0, piece.length]);

/** The streams of a page's content where they lie; none where references go round, as for viewers. */
function streamsOf(file: RawFile, contents: Placed | undefined): RawObject[] {
  try {
    const found = contents && file.resolve(contents.bytes, contents.range);
    const isArray = found && found.bytes[found.value[0]] === OPEN_SQUARE;
    const parts = isArray
      ? readArray(found.bytes, found.value[0]).map((part) => file.resolve(found.bytes, part))
      : [found];
    return parts.filter((part) => part?.data !== undefined) as RawObject[];
  } catch (error) {
    if (error instanceof RawUnfit) return [];
    throw error;
  }
}

/** A page's content where it lies. */
function contentOf(file: RawFile, contents: Placed | undefined): Content {
  const streams = streamsOf(file, contents);
  const only = streams[0];
  if (!only) return { filter: [] };
  if (streams.length > 1) return { joined: streams, filter: [] };
  const filter: [string, Placed][] = [];
  dictEntries(only.bytes, only.value[0], FILTER_KEYS).forEach((range, n) => {
    if (range) filter.push([entryAt(FILTER_KEYS, n), { bytes: only.bytes, range }]);
  });
  return { data: { bytes: only.bytes, range: only.data! }, filter };
}

/** Several content streams as one: unpacked as far as they can be, put in a row and packed again, since an operator may not be cut in two. */
function joinStreams(
  file: RawFile,
  streams: readonly RawObject[],
): { data: Uint8Array; filter: [string, Placed][] } {
  const joined = Buffer.concat(streams.flatMap((stream) => [seen(file, stream), Buffer.from('\n')]));
  return { data: deflateSync(joined), filter: [['Filter', { bytes: FLATE, range: [0, FLATE.length] }]] };
}

/** What viewers see of a content stream: of what they cannot unpack, nothing. Its survey says so. */
function seen(file: RawFile, stream: RawObject): Uint8Array {
  try {
    return file.unpack(stream, true);
  } catch (error) {
    if (error instanceof RawUnfit) return new Uint8Array();
    throw error;
  }
}
