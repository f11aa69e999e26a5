import { deflateSync } from 'node:zlib';
import type { Step } from '../../core/docket/steps';
import { PLAIN_LINES } from '../../core/numbers/lines';
import { ByteOutput, fileHeader, ObjectTable } from '../../pdf/byteOutput';

/**
 * What a process that stands by for single outputs is warmed up on: one like most files, and one of more objects and bytes
 * than are taken in one piece, of which only sheets are made. Pages take more memory, and such a process holds little.
 */
export const SINGLE = [
  { pages: 100, bytes: 26, rounds: 40, outputs: [{ kind: 'sheets' }, { kind: 'pages', crop: 'bleed' }] },
  { pages: 300, bytes: 4000, rounds: 6, outputs: [{ kind: 'sheets' }] },
] as const;
/** The same for rows of files, which are mostly small: how many pages, and how often each is gone through. */
export const ROW = { pages: 40, rounds: 24 } as const;
export const SOURCE = '0'.repeat(64);

export const TAKE_IN: Step = {
  id: 't',
  kind: 'take-in',
  source: SOURCE,
  name: 'sample.pdf',
  where: { at: 'end' },
};
export const BLEED: Step = { id: 'b', kind: 'bleed', pages: 'all', head: 8, foot: 8, spine: 8, fore: 8 };
export const FOLIOS: Step = {
  id: 'f',
  kind: 'folio',
  pages: 'all',
  ...PLAIN_LINES,
  x: 30,
  y: 30,
  edge: 'foot',
  across: 'outer',
  text: '{page}',
};

/** What is parsed is compiled for other objects than what stands in a program. */
export const asItComesIn = <T>(task: T): T => JSON.parse(JSON.stringify(task)) as T;

/** A plain PDF of so many pages, each with resources and a content stream of so many bytes of its own. */
export async function sampleFile({ pages, bytes }: { pages: number; bytes: number }): Promise<Uint8Array> {
  // Stored, not made smaller, so that it has the length asked for.
  const content = deflateSync('BT /F1 9 Tf (sample) Tj ET'.padEnd(bytes), { level: 0 });
  const chunks: Uint8Array[] = [];
  const out = new ByteOutput((chunk) => void chunks.push(chunk));
  const table = new ObjectTable(out);
  const write = (number: number, text: string) => {
    table.begin(number);
    out.put(text);
    table.end();
  };
  out.put(fileHeader('1.7'));
  write(1, '<< /Type /Catalog /Pages 2 0 R >>');
  write(
    2,
    `<< /Type /Pages /Count ${pages} /Kids [${Array.from({ length: pages }, (_, i) => `${4 + 2 * i} 0 R`).join(' ')}] >>`,
  );
  write(3, '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>');
  for (let i = 0; i < pages; i++) {
    write(
      4 + 2 * i,
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 420 595] /Resources << /Font << /F1 3 0 R >> /ExtGState << >> >> /Contents ${5 + 2 * i} 0 R /Annots [ ] >>`,
    );
    write(
      5 + 2 * i,
      `<< /Filter /FlateDecode /Length ${content.length} >>\nstream\n${content.toString('latin1')}\nendstream`,
    );
  }
  table.finish('1 0 R', '3 0 R', '0'.repeat(32));
  await out.drain(true);
  return Buffer.concat(chunks);
}
