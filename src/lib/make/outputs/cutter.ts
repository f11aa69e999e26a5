import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { WorkedOut } from '../../core/checks';
import { cutLength, cutPieces, cutSvg } from '../../core/handover/cutting';
import type { OutputOf } from '../../core/handover/outputs';
import type { Part } from '../../core/handover/parts';
import { cutsOf } from '../../core/handover/standIns';
import { heightOf, widthOf } from '../../core/measure/box';
import { toolPaths } from '../../pdf/read/toolPaths';
import { mediaBoxOf } from '../../raster/mediaBox';
import { HandOverError } from '../handOverError';
import { drawn, picturesOf } from '../pictures';
import type { HandOverJob, OutputMaker, Written } from './outputMaker';
import { entryAt, firstOf } from '../../core/entries';

/** The longest side of the picture beneath a cutter's path, in dots, and what it is at most an inch. */
const BENEATH = { dots: 1200, ppi: 100 };

/** Drawings of the paths that a cutter follows over what is printed there, one for each page or front. Throws HandOverError if there is none at all. */
async function followCuts(
  work: WorkedOut,
  output: OutputOf<'cutter'>,
  parts: readonly Part[],
  job: HandOverJob,
): Promise<Written[]> {
  const by = output.by ?? cutsOf(work, output.of)[0];
  if (!by) throw new HandOverError({ code: 'nothing-to-cut' });
  const { bytes, survey } = await drawn(work, output.of, 'bleed', job);
  const read = await toolPaths(bytes, by, survey);
  const paths = output.of === 'pages' ? read : parts.map(({ pages }) => entryAt(read, firstOf(pages)));
  if (paths.every(({ length }) => !length))
    throw new HandOverError({ code: 'cut-not-found', data: { ...by, of: output.of } });
  const picture = await picturesOf(bytes);
  const written: Written[] = [];
  for (const [n, part] of parts.entries()) {
    const index = output.of === 'pages' ? n : firstOf(part.pages);
    const page = entryAt(survey.pages, index);
    const { media } = page.boxes;
    const file = String(n + 1);
    const size = { width: widthOf(media), height: heightOf(media) };
    const ppi = Math.min(BENEATH.ppi, (72 * BENEATH.dots) / Math.max(size.width, size.height));
    const art = await picture(index, mediaBoxOf(page), ppi).jpeg().toBuffer();
    const beneath = `data:image/jpeg;base64,${art.toString('base64')}`;
    writeFileSync(join(job.folder, file), cutSvg(entryAt(paths, n), size, beneath));
    const cut = { by, length: cutLength(entryAt(paths, n)), pieces: cutPieces(entryAt(paths, n)) };
    written.push({ file, part, facts: { size, cut } });
    await job.onProgress?.(written.length, parts.length);
  }
  return written;
}

export const cutter: OutputMaker<'cutter'> = { write: followCuts };
