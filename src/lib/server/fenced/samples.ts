import { cmyk, degrees, PDFDocument, rgb } from '@cantoo/pdf-lib';
import type { Step } from '../../core/docket/steps';
import { PLAIN_LINES } from '../../core/numbers/lines';

/**
 * What most files are like; and one of more objects and bytes than are taken in one piece, of which only sheets are made:
 * pages take more memory, and a process that stands by holds little.
 */
export const SAMPLES = {
  usual: { pages: 40, bytes: 40, rounds: 24 },
  large: { pages: 300, bytes: 4000, rounds: 6 },
} as const;
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

/** A PDF of so many pages, each with at least so many bytes of text of its own; its objects packed into streams, as PDF has them since 1.5, or not. */
export async function sampleFile(sample: {
  pages: number;
  bytes: number;
  packed?: boolean;
}): Promise<Buffer> {
  const document = await PDFDocument.create();
  const text = 'sample '.padEnd(sample.bytes, '-');
  for (let n = 0; n < sample.pages; n++) {
    const page = document.addPage([420, 595]);
    page.drawText(`${n} ${text}`, { x: 50, y: 300, color: cmyk(0, 0, 0, 1) });
    if (n % 8) continue;
    page.drawRectangle({ x: 20.5, y: 20.5, width: 100, height: 60, color: rgb(0.2, 0.4, 0.6) });
    page.setTrimBox(8.5, 8.5, 403, 578);
    page.setRotation(degrees(90));
  }
  // A file that is read is a Buffer too.
  return Buffer.from(await document.save({ useObjectStreams: sample.packed ?? false }));
}
