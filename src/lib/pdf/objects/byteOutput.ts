import { withRoom } from '../../core/entries';

/** Takes the bytes of an output as they come. A promise is waited for, so a slow taker holds the writer back; then others are written over them. */
export type Sink = (chunk: Uint8Array) => void | Promise<void>;

export type PdfVersion = '1.7' | '2.0';

/** The first lines of a file; the second says that bytes above 127 follow (ISO 32000-1, 7.5.2). */
export const fileHeader = (version: PdfVersion): string => `%PDF-${version}\n%\xE2\xE3\xCF\xD3\n`;

const CHUNK = 1024 * 1024;
/** Texts that are longer than this are written faster by the platform. */
const LONG = 16;

/** Gathers small pieces into chunks for a sink and counts the bytes. Characters are bytes (Latin 1). */
export class ByteOutput {
  offset = 0;
  private chunk: Buffer = Buffer.allocUnsafeSlow(CHUNK);
  private filled = 0;
  /** Chunks that wait to be taken. */
  private full: Uint8Array[] = [];
  /** Such as were taken, to be filled again. */
  private readonly spare: Buffer[] = [];
  constructor(private readonly sink: Sink) {}

  put(piece: string | Uint8Array): void {
    this.offset += piece.length;
    if (this.filled + piece.length > CHUNK) this.close();
    if (piece.length > CHUNK) {
      this.full.push(typeof piece === 'string' ? Buffer.from(piece, 'latin1') : piece);
      return;
    }
    const { chunk, filled } = this;
    if (typeof piece !== 'string') chunk.set(piece, filled);
    else if (piece.length > LONG) chunk.write(piece, filled, 'latin1');
    else for (let n = 0; n < piece.length; n++) chunk[filled + n] = piece.charCodeAt(n);
    this.filled += piece.length;
  }

  /** What follows a stream's dictionary (ISO 32000-1, 7.3.8). */
  putData(data: string | Uint8Array): void {
    this.put('\nstream\n');
    this.put(data);
    this.put('\nendstream');
  }

  /** Whether chunks wait to be handed on. */
  get waits(): boolean {
    return this.full.length > 0;
  }

  /** Hands on the chunks that are full; at the end of a file, `all`. */
  async drain(all = false): Promise<void> {
    if (all) this.close();
    if (!this.full.length) return;
    const chunks = this.full;
    this.full = [];
    for (const chunk of chunks) {
      await this.sink(chunk);
      // Pieces that are longer are not of its own making.
      if (chunk.buffer.byteLength === CHUNK) this.spare.push(Buffer.from(chunk.buffer));
    }
  }

  private close(): void {
    if (!this.filled) return;
    this.full.push(this.chunk.subarray(0, this.filled));
    this.chunk = this.spare.pop() ?? Buffer.allocUnsafeSlow(CHUNK);
    this.filled = 0;
  }
}

/** Numbers and places of the objects of a file being written, for its cross-reference table. */
export class ObjectTable {
  /** By number; 0 if there is no object, since every file begins with its header. */
  private places = new Float64Array(1024);
  private readonly generations = new Map<number, number>();
  private largest = 0;
  constructor(private readonly out: ByteOutput) {}

  /** Begins an object: `n g obj`. */
  begin(number: number, generation = 0): void {
    this.places = withRoom(this.places, number);
    this.places[number] = this.out.offset;
    if (generation) this.generations.set(number, generation);
    this.largest = Math.max(this.largest, number);
    this.out.put(`${number} ${generation} obj\n`);
  }

  end(): void {
    this.out.put('\nendobj\n');
  }

  /** Writes the table in one subsection, as a file without updates has it (ISO 32000-1, 7.5.4), and the trailer. */
  finish(root: string, info: string, id: string): void {
    const { out } = this;
    const start = out.offset;
    out.put(`xref\n0 ${this.largest + 1}\n`);
    for (let number = 0; number <= this.largest; number++) {
      const place = this.places[number];
      const generation = this.generations.get(number) ?? 0;
      out.put(
        place
          ? `${String(place).padStart(10, '0')} ${String(generation).padStart(5, '0')} n \n`
          : '0000000000 65535 f \n',
      );
    }
    out.put(
      `trailer\n<< /Size ${this.largest + 1} /Root ${root} /Info ${info} /ID [<${id}> <${id}>] >>\nstartxref\n${start}\n%%EOF\n`,
    );
  }
}
