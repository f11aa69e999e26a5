import { PDFArray, PDFDict, PDFObject, PDFRef, PDFStream, type PDFContext } from '@cantoo/pdf-lib';
import { fileObjectsOf } from '../read/fileObjects';
import { PageAsItLies } from '../read/pageAsItLies';
import type { RawObject } from '../raw/rawFile';
import { eachReference } from '../raw/scan';
import { ByteOutput, fileHeader, ObjectTable, type PdfVersion, type Sink } from '../objects/byteOutput';

export interface PdfFile {
  context: PDFContext;
  root: PDFRef;
  info: PDFRef;
  /** 32 hex digits for the file identifier (ISO 32000-1, 14.4). */
  id: string;
  version: PdfVersion;
}

/**
 * Writes all objects that can be reached from the root and the info dictionary, with a cross-reference table of one
 * subsection (7.5.4); those of a file that nobody asked for, with their bytes as they lie. Bytes leave in chunks; the file is
 * never whole in memory.
 */
export async function writePdf({ context, root, info, id, version }: PdfFile, sink: Sink): Promise<void> {
  const out = new ByteOutput(sink);
  const table = new ObjectTable(out);
  out.put(fileHeader(version));
  for (const [number, generation, object] of reachable(context, [root, info])) {
    table.begin(number, generation);
    if (!(object instanceof PDFObject)) putAsItLies(object, out);
    else if (object instanceof PageAsItLies && object.lies) putPage(object, out);
    else if (object instanceof Content) {
      out.put(`<< /Length ${object.operators.length} >>`);
      out.putData(object.operators);
    } else if (object instanceof PDFStream) {
      object.updateDict();
      out.put(object.dict.toString());
      out.putData(object.getContents());
    } else if (object instanceof PDFDict || object instanceof PDFArray) out.put(object.toString());
    else out.put(bytesOf(object));
    table.end();
    if (out.waits) await out.drain();
  }
  table.finish(root.toString(), info.toString(), id);
  await out.drain(true);
}

/** Content that was made here, of which there may be one for every page: a stream whose dictionary says no more than its length. */
export class Content extends PDFObject {
  /** Characters are bytes (Latin 1). */
  constructor(readonly operators: string) {
    super();
  }
}

function putAsItLies({ bytes, value, data }: RawObject, out: ByteOutput): void {
  out.put(bytes.subarray(...value));
  if (data) out.putData(bytes.subarray(...data));
}

/** A page with its entries that nobody asked for as they lie. */
function putPage(page: PageAsItLies, out: ByteOutput): void {
  let text = '';
  out.put('<<');
  page.eachPart(
    (start, end) => {
      out.put('\n');
      out.put(page.bytes.subarray(start, end));
    },
    (name, value) => (text += `\n${name.asString()} ${value.toString()}`),
  );
  out.put(`${text}\n>>`);
}

function bytesOf(object: PDFObject): Uint8Array {
  const bytes = new Uint8Array(object.sizeInBytes());
  object.copyBytesInto(bytes, 0);
  return bytes;
}

/** An object that is written: its number and generation, and what it is, where it lies if nobody asked for it. */
type Reached = [number: number, generation: number, object: PDFObject | RawObject];

/** All objects that can be reached, in the order met; references to nothing are left out (they read as null, 7.3.10). */
function* reachable(context: PDFContext, from: readonly PDFRef[]): Generator<Reached> {
  const objects = fileObjectsOf(context);
  const met = new Set<number | PDFRef>();
  // Of generation 0 a number is enough: of tens of thousands that lie, no reference is made.
  const waiting: (PDFObject | number)[] = [...from].reverse();
  const refer = (number: number, generation: number) =>
    waiting.push(generation ? PDFRef.of(number, generation) : number);
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (typeof next !== 'number' && !(next instanceof PDFRef)) {
      eachInside(next, (inside) => waiting.push(inside), refer);
      continue;
    }
    const [number, generation] =
      typeof next === 'number' ? [next, 0] : [next.objectNumber, next.generationNumber];
    const key = generation ? next : number;
    if (met.has(key)) continue;
    met.add(key);
    const target = objects?.asItLies(number, generation) ?? context.lookup(PDFRef.of(number, generation));
    if (!target) continue;
    if (target instanceof PDFObject) waiting.push(target);
    else eachReference(target.bytes, target.value, refer);
    yield [number, generation, target];
  }
}

/** Tells of the objects that lie in one and may refer to others, and of what its places in bytes refer to. */
function eachInside(
  object: PDFObject,
  inside: (object: PDFObject) => void,
  refer: (number: number, generation: number) => void,
): void {
  const tell = (value: PDFObject): void => {
    if (value instanceof PDFRef || isNest(value)) inside(value);
  };
  if (object instanceof PageAsItLies && object.lies)
    object.eachPart(
      (start, end) => eachReference(object.bytes, [start, end], refer),
      (_, value) => tell(value),
    );
  else if (object instanceof PDFDict) object.values().forEach(tell);
  else if (object instanceof PDFArray) for (let i = 0; i < object.size(); i++) tell(object.get(i));
  else if (object instanceof PDFStream) inside(object.dict);
}

const isNest = (value: PDFObject): boolean =>
  value instanceof PDFDict || value instanceof PDFArray || value instanceof PDFStream;
