import {
  PDFContext,
  PDFDict,
  PDFDocument,
  PDFHeader,
  PDFName,
  PDFObjectParser,
  PDFRawStream,
  PDFRef,
  type PDFObject,
} from '@cantoo/pdf-lib';
import './quickLibrary';
import { entryAt } from '../../core/entries';
import { PdfError } from '../objects/pdfError';
import type { RawFile, RawObject } from '../raw/rawFile';
import { dictEntry, standsAt, textOf } from '../raw/scan';
import { PageAsItLies } from './pageAsItLies';

interface Parser {
  bytes: { moveTo: (at: number) => void; offset: () => number };
  parseObject: () => PDFObject;
  parseDict: () => PDFDict;
}

/**
 * The objects of a file as the PDF library wants them, each made when it is first asked for. Of a long document most are never
 * asked for: where it is written again, that is done with the bytes as they lie.
 */
export class FileObjects extends Map<PDFRef, PDFObject> {
  /** Numbers of objects that were made, taken out or put in the place of others. */
  private readonly touched = new Set<number>();
  /** A page of each kind of entries, the last few. */
  private readonly pages: PageAsItLies[] = [];
  private readonly parsers = new WeakMap<Uint8Array, Parser>();

  constructor(
    private readonly file: RawFile,
    private readonly context: PDFContext,
  ) {
    super();
  }

  /** Throws PdfError `damaged` if the library cannot make anything of it. */
  override get(ref: PDFRef): PDFObject | undefined {
    const known = super.get(ref);
    if (known) return known;
    const place = this.place(ref);
    if (!place) return undefined;
    const { bytes, start } = place;
    const made = PageAsItLies.at(this.context, bytes, start, this, this.pages) ?? this.make(bytes, start);
    this.set(ref, made);
    return made;
  }

  /** An object where it lies in the file, while nobody asked for it or put another in its place. */
  asItLies(number: number, generation = 0): RawObject | undefined {
    if (this.touched.has(number)) return undefined;
    return this.file.object(number, generation);
  }

  /** Where such an object begins. */
  place(ref: PDFRef): { bytes: Uint8Array; start: number } | undefined {
    if (this.touched.has(ref.objectNumber)) return undefined;
    return this.file.place(ref.objectNumber, ref.generationNumber);
  }

  override has(ref: PDFRef): boolean {
    return super.has(ref) || this.place(ref) !== undefined;
  }

  override set(ref: PDFRef, object: PDFObject): this {
    this.touched.add(ref.objectNumber);
    return super.set(ref, object);
  }

  override delete(ref: PDFRef): boolean {
    this.touched.add(ref.objectNumber);
    return super.delete(ref);
  }

  override entries(): MapIterator<[PDFRef, PDFObject]> {
    this.naming(/(?:)/);
    return super.entries();
  }

  override [Symbol.iterator](): MapIterator<[PDFRef, PDFObject]> {
    return this.entries();
  }

  /** Objects that were made, and those of the others in whose text, data of streams left aside, `pattern` is found. */
  naming(pattern: RegExp): [PDFRef, PDFObject][] {
    const named = new Set<PDFObject | undefined>();
    for (const number of this.file.reached()) {
      const found = this.file.object(number);
      if (!found || !pattern.test(textOf(found.bytes, found.value))) continue;
      named.add(this.get(PDFRef.of(number, found.generation)));
    }
    // What was put on a page that lies is none of the file's: only its own text counts.
    return [...super.entries()].filter(
      ([, object]) => !(object instanceof PageAsItLies && object.lies) || named.has(object),
    );
  }

  /** The value that begins here, with a stream's data. */
  make(bytes: Uint8Array, start: number): PDFObject {
    const parser =
      this.parsers.get(bytes) ?? (PDFObjectParser.forBytes(bytes, this.context) as unknown as Parser);
    this.parsers.set(bytes, parser);
    parser.bytes.moveTo(start);
    try {
      if (!standsAt(bytes, start, '<<')) return parser.parseObject();
      const dict = parser.parseDict();
      const data = this.file.dataAfter(bytes, [start, parser.bytes.offset()]);
      return data ? PDFRawStream.of(dict, bytes.subarray(...data)) : dict;
    } catch (error) {
      throw new PdfError('damaged', { reason: String(error).slice(0, 200) });
    }
  }
}

/** What a context of the library keeps to itself. */
interface Inside {
  indirectObjects: Map<PDFRef, PDFObject>;
}
const Document = PDFDocument as unknown as new (
  context: PDFContext,
  ignoreEncryption: boolean,
  updateMetadata: boolean,
) => PDFDocument;

/** A file that can be read where it lies as a document of the library. */
export function documentOf(file: RawFile): PDFDocument {
  const context = PDFContext.create();
  const objects = new FileObjects(file, context);
  (context as unknown as Inside).indirectObjects = objects;
  context.largestObjectNumber = file.largest;
  const version = /%PDF-(\d+)\.(\d+)/.exec(textOf(file.bytes, [0, Math.min(file.bytes.length, 1024)]));
  if (version)
    context.header = PDFHeader.forVersion(Number(entryAt(version, 1)), Number(entryAt(version, 2)));
  for (const key of ['Root', 'Info', 'ID'] as const) {
    const value = file.trailer.get(key);
    if (value) context.trailerInfo[key] = objects.make(file.bytes, value[0]);
  }
  return new Document(context, true, false);
}

/** The objects of a context that was opened as a file; undefined if it was made anew. */
export function fileObjectsOf(context: PDFContext): FileObjects | undefined {
  const { indirectObjects } = context as unknown as Inside;
  return indirectObjects instanceof FileObjects ? indirectObjects : undefined;
}

/** The name under a key of a dictionary, or of one that is referred to; an object that nobody asked for is not made to read it. */
export function nameUnder(
  context: PDFContext,
  value: PDFObject | undefined,
  key: string,
): string | undefined {
  const at = value instanceof PDFRef ? fileObjectsOf(context)?.place(value) : undefined;
  const entry = at && standsAt(at.bytes, at.start, '<<') && dictEntry(at.bytes, at.start, key);
  const written = entry && textOf(at.bytes, entry);
  if (written && /^\/[^#]*$/.test(written)) return written.slice(1);
  const dict = context.lookup(value);
  const name = dict instanceof PDFDict ? dict.lookup(PDFName.of(key)) : undefined;
  return name instanceof PDFName ? name.decodeText() : undefined;
}

/** The objects of a context in which one of these names may stand, and perhaps others. */
export function objectsNaming(context: PDFContext, names: readonly string[]): [PDFRef, PDFObject][] {
  // A name may be written with #xx for a character (ISO 32000-1, 7.3.5): then it may be any.
  const pattern = new RegExp(`/(?:${names.join('|')}|[^\\s()<>[\\]{}/%]*#)`);
  return fileObjectsOf(context)?.naming(pattern) ?? context.enumerateIndirectObjects();
}
