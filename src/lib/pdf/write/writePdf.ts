import { PDFArray, PDFDict, PDFObject, PDFRef, PDFStream, type PDFContext } from '@cantoo/pdf-lib';
import { withRoom } from '../../core/entries';
import { fileObjectsOf, type FileObjects } from '../read/fileObjects';
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
  const reached = new Reached(context, [root, info]);
  while (reached.next()) {
    const { number, generation, object } = reached;
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

/** All objects that can be reached, in the order met; references to nothing are left out (they read as null, 7.3.10). */
class Reached {
  number = 0;
  generation = 0;
  /** Where it lies if nobody asked for it. */
  object!: PDFObject | RawObject;
  private readonly objects: FileObjects | undefined;
  private readonly met = new Met();
  // Of generation 0 a number is enough: of tens of thousands that lie, no reference is made.
  private readonly waiting: (PDFObject | number)[];
  private readonly refer = (number: number, generation: number): void => {
    this.waiting.push(generation ? PDFRef.of(number, generation) : number);
  };
  private readonly inside = (value: PDFObject): void => {
    if (value instanceof PDFRef || isNest(value)) this.waiting.push(value);
  };

  constructor(
    private readonly context: PDFContext,
    from: readonly PDFRef[],
  ) {
    this.objects = fileObjectsOf(context);
    this.waiting = [...from].reverse();
  }

  /** Goes on to the next one; false if there is none. */
  next(): boolean {
    for (let next = this.waiting.pop(); next !== undefined; next = this.waiting.pop())
      if (typeof next === 'number') {
        if (this.arrive(next, 0)) return true;
      } else if (next instanceof PDFRef) {
        if (this.arrive(next.objectNumber, next.generationNumber)) return true;
      } else this.look(next);
    return false;
  }

  /** Whether there is an object of this number that was not met before. */
  private arrive(number: number, generation: number): boolean {
    if (!this.met.first(number, generation)) return false;
    const object =
      this.objects?.asItLies(number, generation) ?? this.context.lookup(PDFRef.of(number, generation));
    if (!object) return false;
    if (object instanceof PDFObject) this.waiting.push(object);
    else eachReference(object.bytes, object.value, this.refer);
    this.number = number;
    this.generation = generation;
    this.object = object;
    return true;
  }

  /** Notes what lies in an object and may refer to others, and what its places in bytes refer to. */
  private look(object: PDFObject): void {
    if (object instanceof PageAsItLies && object.lies)
      object.eachPart(
        (start, end) => eachReference(object.bytes, [start, end], this.refer),
        (_, value) => this.inside(value),
      );
    else if (object instanceof PDFDict) object.values().forEach(this.inside);
    else if (object instanceof PDFArray) for (let i = 0; i < object.size(); i++) this.inside(object.get(i));
    else if (object instanceof PDFStream) this.waiting.push(object.dict);
  }
}

const isNest = (value: PDFObject): boolean =>
  value instanceof PDFDict || value instanceof PDFArray || value instanceof PDFStream;

/** Which objects were met. */
class Met {
  /** Of generation 0, by number. */
  private plain = new Uint8Array(1024);
  private readonly others = new Set<string>();

  /** Whether it is met for the first time. */
  first(number: number, generation: number): boolean {
    if (generation) {
      const { size } = this.others;
      return this.others.add(`${number} ${generation}`).size > size;
    }
    this.plain = withRoom(this.plain, number);
    if (this.plain[number]) return false;
    this.plain[number] = 1;
    return true;
  }
}
