import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFRawStream,
  PDFRef,
  PDFStream,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { ByteOutput, fileHeader, ObjectTable, type PdfVersion, type Sink } from './byteOutput';

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
 * subsection (7.5.4). Bytes leave in chunks; the file is never whole in memory.
 */
export async function writePdf({ context, root, info, id, version }: PdfFile, sink: Sink): Promise<void> {
  const out = new ByteOutput(sink);
  const table = new ObjectTable(out);
  out.put(fileHeader(version));
  for (const ref of reachable(context, [root, info])) {
    const object = context.lookup(ref)!;
    table.begin(ref.objectNumber, ref.generationNumber);
    if (object instanceof PDFRawStream && isBare(object.dict)) {
      // Content that was made here, of which there may be one for every page: nothing in it wants looking up.
      const contents = object.getContents();
      out.put(`<< /Length ${contents.length} >>\nstream\n`);
      out.put(contents);
      out.put('\nendstream');
    } else {
      const bytes = new Uint8Array(object.sizeInBytes());
      object.copyBytesInto(bytes, 0);
      out.put(bytes);
    }
    table.end();
    await out.drain();
  }
  table.finish(root.toString(), info.toString(), id);
  await out.drain(true);
}

/** A dictionary that says no more of its stream than how long it is. */
const isBare = (dict: PDFDict): boolean => dict.keys().every((key) => key === LENGTH);
const LENGTH = PDFName.of('Length');

/** All references that can be reached, in the order met; references to nothing are left out (they read as null, 7.3.10). */
function reachable(context: PDFContext, from: readonly PDFRef[]): PDFRef[] {
  const seen = new Set<PDFRef>();
  const order: PDFRef[] = [];
  const waiting: PDFObject[] = [...from].reverse();
  for (let object = waiting.pop(); object; object = waiting.pop()) {
    if (object instanceof PDFRef) {
      if (seen.has(object)) continue;
      seen.add(object);
      const target = context.lookup(object);
      if (!target) continue;
      order.push(object);
      waiting.push(target);
    } else if (object instanceof PDFDict) for (const [, value] of object.entries()) push(waiting, value);
    else if (object instanceof PDFArray) for (let i = 0; i < object.size(); i++) push(waiting, object.get(i));
    else if (object instanceof PDFStream) waiting.push(object.dict);
  }
  return order;
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
