import { crc32 } from 'node:zlib';
import { PDFDict, PDFName, PDFRawStream, type PDFObject } from '@cantoo/pdf-lib';
import { decoded } from '../objects/decodeStream';

/** What one stream of content is, and the names of what it draws. */
interface Seen {
  sum: number;
  draws: readonly string[];
}
/** What looks like the drawing of a form or an image; within a string or an inline image it only tells content apart, too. */
const LOOKS_LIKE_DRAWING = /\/([^\s()<>[\]{}/%]+)\s+Do(?![^\s()<>[\]{}/%])/g;
const XOBJECT = PDFName.of('XObject');
const LINE_END = Buffer.from('\n');
/** Of what is drawn, its first bytes are looked at, and how many there are. */
const LOOKED_AT = 4096;

/** Content in more streams is not told from other content: that would take long. */
const MOST_STREAMS = 64;

/** Tells content of pages and forms from other content: a CRC-32 over what it says and over what it draws, as that lies in the file. */
export class ContentSums {
  private readonly seen = new Map<PDFObject, Seen>();

  /** Keeps what a stream says, which is unpacked. */
  note(stream: PDFObject, bytes: Uint8Array): void {
    const content = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length);
    const draws = content.includes('Do')
      ? [...content.toString('latin1').matchAll(LOOKS_LIKE_DRAWING)].map(([, name]) => name!)
      : [];
    this.seen.set(stream, { sum: crc32(bytes), draws });
  }

  /** The content of one stream, or of several in a row as one has it that is made of them: with a line's end after each; null if they are too many to be compared. */
  of(streams: readonly PDFRawStream[], resources: PDFDict | undefined): number | null {
    if (streams.length > MOST_STREAMS) return null;
    let sum = 0;
    for (const content of this.growing(streams, resources)) sum = content;
    return sum;
  }

  /** The content of the first of some streams, of the first two, and so on. */
  *growing(streams: readonly PDFRawStream[], resources: PDFDict | undefined): Generator<number> {
    const [things, named] = [resources?.lookup(XOBJECT), new Set<string>()];
    let joined = 0;
    for (const [n, stream] of streams.entries()) {
      const { sum, draws } = this.known(stream);
      if (streams.length > 1) joined = crc32(LINE_END, crc32(decoded(stream).bytes, joined));
      for (const name of draws) named.add(name);
      yield [...named].reduce((before, name) => sumOf(name, things, before), n ? joined : sum);
    }
  }

  private known(stream: PDFRawStream): Seen {
    if (!this.seen.has(stream)) this.note(stream, decoded(stream).bytes);
    return this.seen.get(stream)!;
  }
}

/** A sum of what came before and of a thing that is drawn. */
function sumOf(name: string, things: PDFObject | undefined, before: number): number {
  const thing = things instanceof PDFDict ? things.lookup(PDFName.of(name)) : undefined;
  if (!(thing instanceof PDFRawStream)) return crc32(`${name} 0`, before);
  const bytes = thing.getContents();
  return crc32(bytes.subarray(0, LOOKED_AT), crc32(`${name} ${bytes.length}`, before));
}
