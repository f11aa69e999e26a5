import { deflateSync } from 'node:zlib';
import { workOut } from '../../core/checks';
import { emptyDocket, type Docket } from '../../core/docket/docket';
import type { Step } from '../../core/docket/steps';
import { PLAIN_LINES } from '../../core/numbers/lines';
import type { Survey } from '../../core/pages/survey';
import { ByteOutput, fileHeader, ObjectTable } from '../../pdf/byteOutput';
import { writeWork } from '../../pdf/writeOutput';
import { namesOf, partsAsked } from './handOver';

/**
 * What most files are like; and one of more objects and bytes than are taken in one piece, of which only sheets are made:
 * pages take more memory, and a process that stands by holds little.
 */
const SAMPLES = [
  { pages: 100, bytes: 26, rounds: 40, outputs: [{ kind: 'sheets' }, { kind: 'pages', crop: 'bleed' }] },
  { pages: 300, bytes: 4000, rounds: 6, outputs: [{ kind: 'sheets' }] },
] as const;
const SOURCE = '0'.repeat(64);

/**
 * Makes the sheets and the pages of made-up files again and again, with and without lines put on them, and throws them
 * away: a process that stands by has then compiled what a real output runs through, and does not compile it while somebody
 * waits.
 */
export async function* warmUp(): AsyncGenerator<void, void> {
  for (const sample of SAMPLES) {
    const bytes = await sampleFile(sample);
    const survey = surveyOf(sample.pages, bytes.length);
    for (let round = 0; round < sample.rounds; round++)
      for (const steps of [[TAKE_IN], [TAKE_IN, FOLIOS]])
        for (const output of sample.outputs) {
          const docket: Docket = { ...emptyDocket('Warm-up'), steps };
          const task = asItComesIn({ docket, surveys: { [SOURCE]: survey } });
          const work = workOut(task.docket, task.surveys);
          namesOf(work, output, partsAsked(work, output), new Date(0));
          await writeWork(work, output, {
            surveys: task.surveys,
            read: () => Promise.resolve(bytes),
            sink: () => undefined,
            at: new Date(0),
            onProgress: () => undefined,
          });
          yield;
        }
  }
}

const TAKE_IN: Step = { id: 't', kind: 'take-in', source: SOURCE, name: 'sample.pdf', where: { at: 'end' } };
const FOLIOS: Step = {
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

/** What is known of a sample, with all that a survey says of any file. */
function surveyOf(pages: number, byteCount: number): Survey {
  const page = { x0: 0, y0: 0, x1: 420, y1: 595 };
  return {
    version: 1,
    pages: Array.from({ length: pages }, () => ({
      boxes: { media: page, crop: page, bleed: page, trim: page, art: page },
      given: ['media' as const],
      rotate: 0 as const,
      userUnit: 1,
      toUpright: [1, 0, 0, 1, 0, 0] as const,
      inks: [0],
    })),
    inks: [{ name: 'Black', kind: 'process' }],
    bookmarks: [],
    producer: 'none',
    pdfVersion: '1.7',
    encryption: 'none',
    byteCount,
  };
}

/** What is parsed is compiled for other objects than what stands in a program. */
const asItComesIn = <T>(task: T): T => JSON.parse(JSON.stringify(task)) as T;

/** A plain PDF of so many pages, each with resources and a content stream of so many bytes of its own. */
async function sampleFile({ pages, bytes }: { pages: number; bytes: number }): Promise<Uint8Array> {
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
