import type { Sharp } from 'sharp';
import { rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { WorkedOut } from '../core/checks';
import type { OutputOf } from '../core/handover/outputs';
import type { Part } from '../core/handover/parts';
import { heightOf, widthOf, type Box } from '../core/measure/box';
import type { Survey } from '../core/model/survey';
import { surveyPdf } from '../pdf/read/survey';
import { writeWork } from '../pdf/write/writeOutput';
import { mediaBoxOf } from '../raster/mediaBox';
import type { HandOverJob, Written } from './outputs/outputMaker';
import { writeFile } from './pdfFiles';
import { entryAt } from '../core/entries';

/** The pages up to their trims, or to their bleed, or the sheets, as a PDF that goes no further. */
export async function drawn(
  work: WorkedOut,
  of: OutputOf<'previews'>['of'],
  crop: OutputOf<'pages'>['crop'],
  job: HandOverJob,
): Promise<{ bytes: Buffer; survey: Survey }> {
  const output = of === 'pages' ? ({ kind: 'pages', crop } as const) : ({ kind: 'sheets' } as const);
  await writeFile('pdf', job, (context) => writeWork(work, output, context));
  const bytes = await readFile(join(job.folder, 'pdf'));
  rmSync(join(job.folder, 'pdf'));
  return { bytes, survey: await surveyPdf(bytes) };
}

/** Pictures of pages at their trims or of sheet sides, as the PDF of them is drawn; turned where that is asked for. */
export async function drawPictures(
  work: WorkedOut,
  of: OutputOf<'previews'>['of'],
  { ppi, turned }: { ppi: number; turned?: (n: number) => number },
  parts: readonly Part[],
  job: HandOverJob,
): Promise<Written[]> {
  const { bytes, survey } = await drawn(work, of, 'trim', job);
  const picture = await picturesOf(bytes);
  const written: Written[] = [];
  for (const part of parts) {
    const n = written.length;
    const page = entryAt(survey.pages, n);
    const box = of === 'pages' ? page.boxes.trim : mediaBoxOf(page);
    const file = String(n + 1);
    await picture(n, box, ppi)
      .rotate(turned?.(n) ?? 0)
      .withMetadata({ density: ppi })
      .png()
      .toFile(join(job.folder, file));
    written.push({ file, part });
    await job.onProgress?.(written.length, parts.length);
  }
  return written;
}

/** Draws parts of the pages of a PDF on white paper, at a resolution. */
export async function picturesOf(bytes: Buffer): Promise<(index: number, box: Box, ppi: number) => Sharp> {
  const [{ startRenderer }, { default: sharp }] = await Promise.all([
    import('../raster/nodeRenderer'),
    import('sharp'),
  ]);
  const open = (await startRenderer()).open(bytes);
  return (index, box, ppi) => {
    const dots = (points: number) => Math.max(1, Math.round((points * ppi) / 72));
    const { rgba, width, height } = open.render(index, box, dots(widthOf(box)), dots(heightOf(box)));
    return sharp(rgba, { raw: { width, height, channels: 4 } }).flatten({ background: '#fff' });
  };
}
