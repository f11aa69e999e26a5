import { emptyDocket } from '../../core/docket/docket';
import { PLAIN_LINES } from '../../core/numbers/lines';
import type { Survey } from '../../core/pages/survey';
import { ByteOutput, fileHeader, ObjectTable } from '../../pdf/byteOutput';
import { writeOutput } from '../../pdf/writeOutput';

const PAGES = 100;
/** After so many there is little left to compile. */
const ROUNDS = 40;
const SOURCE = '0'.repeat(64);

/**
 * Makes the sheets and the pages of a made-up file again and again and throws them away: a process that stands by has then
 * compiled what a real output runs through, and does not compile it while somebody waits.
 */
export async function* warmUp(): AsyncGenerator<void, void> {
  const bytes = await sampleFile();
  const page = { x0: 0, y0: 0, x1: 420, y1: 595 };
  const boxes = { media: page, crop: page, bleed: page, trim: page, art: page };
  const survey: Survey = {
    version: 1,
    pages: Array.from({ length: PAGES }, () => ({
      boxes,
      given: ['media' as const],
      rotate: 0 as const,
      userUnit: 1,
      toUpright: [1, 0, 0, 1, 0, 0] as const,
    })),
    inks: [],
    bookmarks: [],
    pdfVersion: '1.7',
    encryption: 'none',
    byteCount: bytes.length,
  };
  const docket = {
    ...emptyDocket('Warm-up'),
    steps: [
      {
        id: 't',
        kind: 'take-in' as const,
        source: SOURCE,
        name: 'sample.pdf',
        where: { at: 'end' as const },
      },
      {
        id: 'f',
        kind: 'folio' as const,
        pages: 'all',
        ...PLAIN_LINES,
        x: 30,
        y: 30,
        edge: 'foot' as const,
        across: 'outer' as const,
        text: '{page}',
      },
    ],
  };
  for (let round = 0; round < ROUNDS; round++)
    for (const output of [{ kind: 'sheets' }, { kind: 'pages', crop: 'bleed' }] as const) {
      const task = asItComesIn({ docket, surveys: { [SOURCE]: survey } });
      await writeOutput(task.docket, output, {
        surveys: task.surveys,
        read: () => Promise.resolve(bytes),
        sink: () => undefined,
        at: new Date(0),
      });
      yield;
    }
}

/** What is parsed is compiled for other objects than what stands in a program. */
const asItComesIn = <T>(task: T): T => JSON.parse(JSON.stringify(task)) as T;

/** A plain PDF of PAGES pages, each with resources and a content stream of its own. */
async function sampleFile(): Promise<Uint8Array> {
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
    `<< /Type /Pages /Count ${PAGES} /Kids [${Array.from({ length: PAGES }, (_, i) => `${4 + 2 * i} 0 R`).join(' ')}] >>`,
  );
  write(3, '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>');
  for (let i = 0; i < PAGES; i++) {
    write(
      4 + 2 * i,
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 420 595] /Resources << /Font << /F1 3 0 R >> /ExtGState << >> >> /Contents ${5 + 2 * i} 0 R /Annots [ ] >>`,
    );
    write(5 + 2 * i, '<< /Length 26 >>\nstream\nBT /F1 9 Tf (sample) Tj ET\nendstream');
  }
  table.finish('1 0 R', '3 0 R', '0'.repeat(32));
  await out.drain(true);
  return Buffer.concat(chunks);
}
