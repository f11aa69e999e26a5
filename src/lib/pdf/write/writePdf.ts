import { PDFArray, PDFDict, PDFObject, PDFRef, PDFStream, type PDFContext } from '@cantoo/pdf-lib';
import { fileObjectsOf } from '../read/fileObjects';
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
  for (const [ref, object] of reachable(context, [root, info])) {
    table.begin(ref.objectNumber, ref.generationNumber);
    if (!(object instanceof PDFObject)) putAsItLies(object, out);
    else if (object instanceof Content)
      out.put(`<< /Length ${object.operators.length} >>\nstream\n${object.operators}\nendstream`);
    else if (object instanceof PDFStream) {
      object.updateDict();
      out.put(object.dict.toString());
      out.put('\nstream\n');
      out.put(object.getContents());
      out.put('\nendstream');
    } else if (object instanceof PDFDict || object instanceof PDFArray) out.put(object.toString());
    else out.put(bytesOf(object));
    table.end();
    await out.drain();
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
  if (!data) return;
  out.put('\nstream\n');
  out.put(bytes.subarray(...data));
  out.put('\nendstream');
}

function bytesOf(object: PDFObject): Uint8Array {
  const bytes = new Uint8Array(object.sizeInBytes());
  object.copyBytesInto(bytes, 0);
  return bytes;
}

/**
 * All objects that can be reached, in the order met, where they lie if nobody asked for them; references to nothing are left
 * out (they read as null, 7.3.10).
 */
function reachable(context: PDFContext, from: readonly PDFRef[]): Map<PDFRef, PDFObject | RawObject> {
  const found = new Map<PDFRef, PDFObject | RawObject>();
  const missing = new Set<PDFRef>();
  const waiting: PDFObject[] = [...from].reverse();
  const objects = fileObjectsOf(context);
  for (let object = waiting.pop(); object; object = waiting.pop()) {
    if (object instanceof PDFRef) {
      if (found.has(object) || missing.has(object)) continue;
      const target = objects?.asItLies(object) ?? context.lookup(object);
      if (!target) missing.add(object);
      else found.set(object, target);
      if (target instanceof PDFObject) waiting.push(target);
      else if (target)
        eachReference(target.bytes, target.value, (number, generation) =>
          waiting.push(PDFRef.of(number, generation)),
        );
    } else if (object instanceof PDFDict) for (const value of object.values()) push(waiting, value);
    else if (object instanceof PDFArray) for (let i = 0; i < object.size(); i++) push(waiting, object.get(i));
    else if (object instanceof PDFStream) waiting.push(object.dict);
  }
  return found;
}

const push = (waiting: PDFObject[], value: PDFObject): void => {
  if (
    value instanceof PDFRef ||
    value instanceof PDFDict ||
    value instanceof PDFArray ||
    value instanceof PDFStream
  )
    waiting.push(value);
};
