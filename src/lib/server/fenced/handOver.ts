import { dayOf } from '../../core/numbers/day';
import type { Sharp } from 'sharp';
import { closeSync, openSync, renameSync, rmSync, statSync, writeFileSync, writeSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { workOut, type WorkedOut } from '../../core/checks';
import type { Docket } from '../../core/docket/docket';
import { askedOf, disagreements } from '../../core/handover/agree';
import type { Output, OutputOf } from '../../core/handover/output';
import { partsOf, SplitProblem, type Part } from '../../core/handover/parts';
import { cutLength, cutPieces, cutSvg } from '../../core/handover/cutting';
import { cutsOf, pressSides } from '../../core/handover/standIns';
import { heightOf, widthOf, type Box } from '../../core/measure/box';
import type { Survey } from '../../core/pages/survey';
import { SelectionError } from '../../core/pages/selection';
import { mapCsv, sheetMap } from '../../core/sheets/map';
import { PatternError } from '../../core/numbers/pattern';
import type { WriteContext } from '../../pdf/sheetsPdf';
import { surveyPdf } from '../../pdf/survey';
import { toolPaths } from '../../pdf/toolPaths';
import { writePlan, writeWork, type PdfOutput } from '../../pdf/writeOutput';
import { mediaBoxOf } from '../../raster/mediaBox';
import { saySelectionError } from '../../words/selections';
import { type Trouble } from '../../words/troubles';
import { partNames } from '../../words/fileName';
import { sayNameError } from '../../words/patterns';
import { ticketPlan } from '../../words/ticket';
import { HandOverError } from './handOverError';
import type { MadeFile } from './made';

/** What the files are made of, and where they go. */
export interface HandOverJob extends Pick<WriteContext, 'surveys' | 'read' | 'onProgress'> {
  folder: string;
  at: Date;
  /** Why it goes out though findings say stop. */
  despite?: string | undefined;
}

/**
 * Makes the files of an output in a folder, under plain names there, with the names they go out under. What was begun and
 * failed is left for the caller to throw away with the folder. Throws HandOverError, PdfError.
 */
export async function handOver(docket: Docket, output: Output, job: HandOverJob): Promise<MadeFile[]> {
  const work = workOut(docket, job.surveys);
  const parts = partsAsked(work, output);
  const files = await write(work, output, parts, job);
  const names = namesOf(
    work,
    output,
    files.map(({ part }) => part),
    job.at,
  );
  const ofPages = ['pages', 'sheets', 'spreads', 'press', 'cutter'].includes(output.kind);
  return files.map(({ file, part, facts }, n) => ({
    file,
    name: names[n]!,
    bytes: statSync(join(job.folder, file)).size,
    ...(ofPages ? { pages: part.pages.length, from: part.from, to: part.to } : {}),
    ...facts,
    ...(part.over ? { over: true as const } : {}),
    ...(part.alone ? { alone: true as const } : {}),
  }));
}

/** The parts of an output. Throws HandOverError where it cannot be made or split so. */
export function partsAsked(work: WorkedOut, output: Output): Part[] {
  try {
    return partsOf(work, output);
  } catch (error) {
    if (error instanceof SplitProblem) throw new HandOverError({ code: error.code });
    if (error instanceof SelectionError)
      throw new HandOverError({ code: 'pages-unread', data: { reason: saySelectionError(error) } });
    throw error;
  }
}

/** The names of the files of parts. Throws HandOverError where the pattern cannot be read. */
export function namesOf(work: WorkedOut, output: Output, parts: readonly Part[], at: Date): string[] {
  try {
    return partNames(work, output, parts, dayOf(at));
  } catch (error) {
    if (!(error instanceof PatternError)) throw error;
    throw new HandOverError({ code: 'name-unread', data: { reason: sayNameError(error) } });
  }
}

interface Written {
  file: string;
  part: Part;
  /** What else is told of it. */
  facts?: Pick<MadeFile, 'size' | 'side' | 'upsideDown' | 'cut'>;
}

async function write(
  work: WorkedOut,
  output: Output,
  parts: readonly Part[],
  job: HandOverJob,
): Promise<Written[]> {
  const [only] = parts;
  const text = (content: string): Written[] => {
    writeFileSync(join(job.folder, '1'), content);
    return [{ file: '1', part: only! }];
  };
  switch (output.kind) {
    case 'map':
      return text(
        output.as === 'csv' ? mapCsv(work.plan!) : `${JSON.stringify(sheetMap(work.plan!), null, 2)}\n`,
      );
    case 'docket':
      return text(`${JSON.stringify(work.docket, null, 2)}\n`);
    case 'previews':
      return drawPictures(work, output.of, { ppi: output.ppi }, parts, job);
    case 'press': {
      const sides = pressSides(work.plan!, output);
      const turned = (n: number) => sides[n]!.turned;
      const printed = await drawPictures(work, 'sheets', { ppi: output.ppi, turned }, parts, job);
      return printed.map((each, n) => {
        const { side, size } = sides[n]!;
        return { ...each, facts: { side, size, ...(turned(n) ? { upsideDown: true } : {}) } };
      });
    }
    case 'cutter':
      return followCuts(work, output, parts, job);
    default:
      return 'split' in output && output.split?.by === 'size'
        ? bySize(work, output, only!, output.split.mb * 1e6, job)
        : writeParts(work, output, parts, job);
  }
}

/** Writes one file of pages, and how many bytes it came to. */
async function writeOne(
  work: WorkedOut,
  output: Output,
  only: readonly number[] | undefined,
  name: string,
  job: HandOverJob,
  onProgress?: (done: number) => void | Promise<void>,
): Promise<number> {
  const path = join(job.folder, name);
  const file = openSync(path, 'w');
  const context = {
    surveys: job.surveys,
    read: job.read,
    at: job.at,
    only,
    // Nothing else waits for this process: writing at once is quickest.
    sink: (chunk: Uint8Array) => {
      for (let at = 0; at < chunk.length;) at += writeSync(file, chunk, at);
    },
    onProgress,
  };
  try {
    if (output.kind === 'ticket')
      await writePlan(work, output, ticketPlan(work, job.at, job.despite), context);
    else await writeWork(work, output as PdfOutput, context);
  } finally {
    closeSync(file);
  }
  return statSync(path).size;
}

async function writeParts(
  work: WorkedOut,
  output: Output,
  parts: readonly Part[],
  job: HandOverJob,
): Promise<Written[]> {
  const whole = parts.reduce((sum, { pages }) => sum + pages.length, 0);
  let before = 0;
  const written: Written[] = [];
  for (const part of parts) {
    const file = String(written.length + 1);
    // A file that has all its pages is written without a list of them, which is quickest.
    const only = parts.length === 1 && !chosen(output) ? undefined : part.pages;
    await writeOne(work, output, only, file, job, (done) =>
      job.onProgress?.(before + done, Math.max(whole, done)),
    );
    before += part.pages.length;
    written.push({ file, part });
  }
  return written;
}

const chosen = (output: Output): boolean =>
  output.kind === 'pages' && (output.pages !== undefined || output.split !== undefined);

/** A part takes at least this share of its size before it is closed, or as many pages as fit. */
const FULL = 0.9;

/** Shares out pages to files of at most so many bytes, as full as trying shows; a page that is larger by itself gets its own. */
async function bySize(
  work: WorkedOut,
  output: Output,
  whole: Part,
  most: number,
  job: HandOverJob,
): Promise<Written[]> {
  const { pages } = whole;
  const numbered = partsNumbered(work, output);
  const written: Written[] = [];
  let guess = pages.length;
  for (let at = 0; at < pages.length;) {
    const file = String(written.length + 1);
    const trial = `${file}.try`;
    let [fits, tooMany] = [0, pages.length - at + 1];
    let count = Math.min(guess, pages.length - at);
    let bytes = 0;
    for (;;) {
      const tried = await writeOne(work, output, pages.slice(at, at + count), trial, job);
      if (tried <= most) {
        [fits, bytes] = [count, tried];
        renameSync(join(job.folder, trial), join(job.folder, file));
      } else tooMany = count;
      if (count === 1 && !fits) break;
      if (tooMany - fits <= 1 || (fits && bytes >= FULL * most)) break;
      const likely = Math.floor((count * most * 0.97) / tried);
      count = Math.min(tooMany - 1, Math.max(fits + 1, likely));
    }
    if (!fits) renameSync(join(job.folder, trial), join(job.folder, file));
    else rmSync(join(job.folder, trial), { force: true });
    const mine = pages.slice(at, at + Math.max(1, fits));
    const part = {
      ...numbered(mine),
      name: String(written.length + 1),
      ...(fits ? {} : { over: true as const }),
    };
    written.push({ file, part });
    at += mine.length;
    guess = mine.length;
    await job.onProgress?.(at, pages.length);
  }
  return written;
}

/** A part of pages that were picked out of the undivided file, numbered as parts of a fixed length are. */
function partsNumbered(work: WorkedOut, output: Output): (pages: readonly number[]) => Part {
  const singles = new Map(
    partsOf(work, { ...output, split: { by: 'every', count: 1 } } as Output).map((part) => [
      part.pages[0]!,
      part,
    ]),
  );
  return (pages) => {
    const numbers = pages.map((page) => singles.get(page)!.from);
    return { name: '', pages, from: Math.min(...numbers), to: Math.max(...numbers) };
  };
}

/** The pages up to their trims, or to their bleed, or the sheets, as a PDF that goes no further. */
async function drawn(
  work: WorkedOut,
  of: OutputOf<'previews'>['of'],
  crop: OutputOf<'pages'>['crop'],
  job: HandOverJob,
): Promise<{ bytes: Buffer; survey: Survey }> {
  await writeOne(work, of === 'pages' ? { kind: 'pages', crop } : { kind: 'sheets' }, undefined, 'pdf', job);
  const bytes = await readFile(join(job.folder, 'pdf'));
  rmSync(join(job.folder, 'pdf'));
  return { bytes, survey: await surveyPdf(bytes) };
}

/** Pictures of pages at their trims or of sheet sides, as the PDF of them is drawn; turned where that is asked for. */
async function drawPictures(
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
    const page = survey.pages[n]!;
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
async function picturesOf(bytes: Buffer): Promise<(index: number, box: Box, ppi: number) => Sharp> {
  const [{ startRenderer }, { default: sharp }] = await Promise.all([
    import('../../raster/nodeRenderer'),
    import('sharp'),
  ]);
  const open = (await startRenderer()).open(bytes);
  return (index, box, ppi) => {
    const dots = (points: number) => Math.max(1, Math.round((points * ppi) / 72));
    const { rgba, width, height } = open.render(index, box, dots(widthOf(box)), dots(heightOf(box)));
    return sharp(rgba, { raw: { width, height, channels: 4 } }).flatten({ background: '#fff' });
  };
}

/** The longest side of the picture beneath a cutter's path, in dots, and what it is at most an inch. */
const BENEATH = { dots: 1200, ppi: 100 };

/** Drawings of the paths that a cutter follows over what is printed there, one for each page or front. Throws HandOverError where there is none at all. */
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
  const paths = output.of === 'pages' ? read : parts.map(({ pages }) => read[pages[0]!]!);
  if (paths.every(({ length }) => !length))
    throw new HandOverError({ code: 'cut-not-found', data: { ...by, of: output.of } });
  const picture = await picturesOf(bytes);
  const written: Written[] = [];
  for (const [n, part] of parts.entries()) {
    const index = output.of === 'pages' ? n : part.pages[0]!;
    const page = survey.pages[index]!;
    const { media } = page.boxes;
    const file = String(n + 1);
    const size = { width: widthOf(media), height: heightOf(media) };
    const ppi = Math.min(BENEATH.ppi, (72 * BENEATH.dots) / Math.max(size.width, size.height));
    const art = await picture(index, mediaBoxOf(page), ppi).jpeg().toBuffer();
    const beneath = `data:image/jpeg;base64,${art.toString('base64')}`;
    writeFileSync(join(job.folder, file), cutSvg(paths[n]!, size, beneath));
    const cut = { by, length: cutLength(paths[n]!), pieces: cutPieces(paths[n]!) };
    written.push({ file, part, facts: { size, cut } });
    await job.onProgress?.(written.length, parts.length);
  }
  return written;
}

/** Surveys files that were written and holds them against what was asked. Throws HandOverError where one is not what it should be. */
export async function checkFiles(
  docket: Docket,
  output: Output,
  made: readonly MadeFile[],
  { surveys, folder, onProgress }: Pick<HandOverJob, 'surveys' | 'folder' | 'onProgress'>,
): Promise<void> {
  const work = workOut(docket, surveys);
  const byParts = 'split' in output && output.split?.by === 'size' ? undefined : partsAsked(work, output);
  const whole = byParts ?? partsAsked(work, output);
  const askedFor = askedOf(work, output);
  if (!askedFor) return;
  let at = 0;
  for (const [n, { file, name, pages = 0 }] of made.entries()) {
    const part = byParts?.[n] ?? { pages: whole[0]!.pages.slice(at, at + pages) };
    at += pages;
    const written = await surveyPdf(await readFile(join(folder, file)), undefined, { draws: true });
    const [first, ...more] = disagreements(askedFor(part), written);
    if (first) throw new HandOverError(disagrees(name, first, more.length));
    await onProgress?.(n + 1, made.length);
  }
}

function disagrees(name: string, first: ReturnType<typeof disagreements>[0], more: number): Trouble {
  const size = ({ width, height }: { width: number; height: number }) =>
    `${width.toFixed(2)} × ${height.toFixed(2)} pt`;
  const what =
    'name' in first
      ? { what: first.of, asked: first.name, written: '' }
      : typeof first.asked === 'object'
        ? { what: first.of, asked: size(first.asked), written: size(first.written as typeof first.asked) }
        : { what: first.of, asked: String(first.asked), written: String(first.written) };
  return { code: 'disagrees', data: { name, ...what, page: 'page' in first ? first.page : 0, more } };
}
