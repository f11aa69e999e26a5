import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';

/** A file in a folder with pages of running text, each with a stream of its own: about 2 kB packed. */
export async function textFile(pages: number, folder: string): Promise<string> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  let seed = 7;
  const word = () => (seed = (seed * 16807) % 2147483647).toString(36);
  for (let n = 1; n <= pages; n++) {
    const page = document.addPage([420, 595]);
    page.setFont(font);
    for (let line = 0; line < 42; line++)
      page.drawText(Array.from({ length: 9 }, word).join(' '), { x: 40, y: 555 - line * 12, size: 9 });
    page.drawText(String(n), { x: 200, y: 20, size: 9 });
  }
  const path = join(folder, `${pages}.pdf`);
  writeFileSync(path, await document.save({ useObjectStreams: false }));
  return path;
}

/** The middle of some figures. */
export const median = (values: number[]): number =>
  values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
