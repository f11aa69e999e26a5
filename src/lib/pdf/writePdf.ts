import { PDFArray, PDFDict, PDFRef, PDFStream, type PDFContext, type PDFObject } from '@cantoo/pdf-lib';

/** Takes the bytes of an output as they come. A promise is waited for, so a slow taker holds the writer back. */
export type Sink = (chunk: Uint8Array) => void | Promise<void>;

export interface PdfFile {
  context: PDFContext;
  root: PDFRef;
  info: PDFRef;
  /** 32 hex digits for the file identifier (ISO 32000-1, 14.4). */
  id: string;
  version: '1.7' | '2.0';
}

const CHUNK = 256 * 1024;

/**
 * Writes all objects that can be reached from the root and the info dictionary, with a cross-reference table of one
 * subsection (7.5.4). Bytes leave in chunks; the file is never whole in memory.
 */
export async function writePdf({ context, root, info, id, version }: PdfFile, sink: Sink): Promise<void> {
  const refs = reachable(context, [root, info]);
  const out = new Output(sink);
  await out.text(`%PDF-${version}\n%\xE2\xE3\xCF\xD3\n`);
  const largest = refs.reduce((most, ref) => Math.max(most, ref.objectNumber), 0);
  const offsets = new Float64Array(largest + 1);
  const generations = new Uint16Array(largest + 1);
  for (const ref of refs) {
    offsets[ref.objectNumber] = out.offset;
    generations[ref.objectNumber] = ref.generationNumber;
    await out.text(`${ref.objectNumber} ${ref.generationNumber} obj\n`);
    await out.object(context.lookup(ref)!);
    await out.text('\nendobj\n');
  }
  const xref = out.offset;
  await out.text(`xref\n0 ${largest + 1}\n`);
  for (let number = 0; number <= largest; number++) {
    const offset = offsets[number]!;
    await out.text(offset ? `${String(offset).padStart(10, '0')} ${String(generations[number]).padStart(5, '0')} n \n` : '0000000000 65535 f \n');
  }
  await out.text(`trailer\n<< /Size ${largest + 1} /Root ${root} /Info ${info} /ID [<${id}> <${id}>] >>\nstartxref\n${xref}\n%%EOF\n`);
  await out.flush();
}

class Output {
  offset = 0;
  private readonly chunk = new Uint8Array(CHUNK);
  private filled = 0;
  constructor(private readonly sink: Sink) {}

  async text(text: string): Promise<void> {
    if (this.filled + text.length > CHUNK) await this.flush();
    for (let i = 0; i < text.length; i++) this.chunk[this.filled + i] = text.charCodeAt(i);
    this.advance(text.length);
  }

  async object(object: PDFObject): Promise<void> {
    const size = object.sizeInBytes();
    if (this.filled + size > CHUNK) await this.flush();
    if (size <= CHUNK) {
      object.copyBytesInto(this.chunk, this.filled);
      this.advance(size);
      return;
    }
    const large = new Uint8Array(size);
    object.copyBytesInto(large, 0);
    this.offset += size;
    await this.sink(large);
  }

  async flush(): Promise<void> {
    if (!this.filled) return;
    const chunk = this.chunk.slice(0, this.filled);
    this.filled = 0;
    await this.sink(chunk);
  }

  private advance(bytes: number): void {
    this.filled += bytes;
    this.offset += bytes;
  }
}

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
  if (value instanceof PDFRef || value instanceof PDFDict || value instanceof PDFArray || value instanceof PDFStream) waiting.push(value);
};
