import { rmSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { WorkedOut } from '../core/checks';
import { finishPlanOf } from '../core/finish/finishPlan';
import { intendedOf } from '../core/finish/intended';
import { PLAIN_PROOF_PPI, type Proof } from '../core/finish/proof';
import { heightOf, widthOf, type Box } from '../core/measure/box';
import { applyToBox, compose, invert, scale } from '../core/measure/matrix';
import type { PageList } from '../core/model/page';
import { coverPages } from '../core/pages/coverParts';
import { facesOf } from '../core/pages/page';
import { readingOrder } from '../core/pages/panels';
import { surveyPdf } from '../pdf/read/survey';
import { writeWork } from '../pdf/write/writeOutput';
import type { OpenPdf } from '../raster/pdfium';
import type { Drawable, Wanted } from '../standins/finishing/drawable';
import { prove, type ProofTask } from '../standins/finishing/prove';
import type { HandOverJob } from './outputs/outputMaker';
import { writeFile } from './pdfFiles';
import { entryAt } from '../core/entries';

/**
 * Proves sheets of a job: the bytes that go to the press go through press and finishing line, and every page that comes out is held
 * against the one that the writer of pages makes of the same job; `withEdges` tells how much error the edges stand. Throws
 * PdfError, and whatever `onProgress` throws.
 */
export async function proveSheets(
  work: WorkedOut,
  sheets: Uint8Array,
  job: HandOverJob,
  how: ProofWays = {},
): Promise<Proof> {
  const opened: OpenPdf[] = [];
  try {
    return await proveOpened(work, sheets, job, how, opened);
  } finally {
    for (const pdf of opened) pdf.close();
  }
}

interface ProofWays {
  ppi?: number;
  withEdges?: boolean;
  onWrong?: ProofTask['onWrong'];
}

/** Proves them; what is opened for that is told. */
async function proveOpened(
  work: WorkedOut,
  sheets: Uint8Array,
  job: HandOverJob,
  { ppi = PLAIN_PROOF_PPI, withEdges = false, onWrong }: ProofWays,
  opened: OpenPdf[],
): Promise<Proof> {
  const { list, plan, docket } = work;
  const { scheme, title } = docket;
  const finished = { list, plan: plan!, scheme };
  await job.onProgress?.(0, 0, 'proving');
  const pages = await drawablePages(work, job, opened);
  const known = new Map<number, readonly Wanted[]>();
  const wanted = (product: number): readonly Wanted[] => {
    const own =
      known.get(product) ??
      intendedOf(finished, product).map(({ page, part, worded }): Wanted => {
        // A part with no page may have words of the sheet's own.
        const drawable = page ? pages.get(page.id) : worded && NO_PAGE;
        return drawable && { page: drawable, part, ...(worded ? { worded } : {}) };
      });
    known.set(product, own);
    return own;
  };
  return prove({
    sides: await drawables(sheets, 'media', opened),
    finish: finishPlanOf(finished, title),
    wanted,
    ppi,
    withEdges,
    onWrong,
    onSheet: (done, of) => job.onProgress?.(done, of, 'proving'),
  });
}

const NO_PAGE: Drawable = {
  size: { width: 0, height: 0 },
  draw: (_, width, height) => ({ width, height, light: new Uint8Array(width * height).fill(255) }),
};

/** Every page of the job by its id, as the writer of pages makes it; those of a cover are written apart. */
async function drawablePages(
  work: WorkedOut,
  job: HandOverJob,
  opened: OpenPdf[],
): Promise<Map<string, Drawable>> {
  const found = new Map<string, Drawable>();
  const { list } = work;
  const cover = coverPages(list).map(({ page }) => page);
  const { cover: _, ...body } = list;
  const lists: PageList[] = [
    body,
    ...(cover.length ? [{ pages: cover, book: { ...list.book, facing: false } }] : []),
  ];
  for (const each of lists) {
    await writeFile('intended', job, (context) =>
      writeWork(
        { docket: work.docket, list: each, plan: undefined },
        { kind: 'pages', crop: 'trim' },
        context,
      ),
    );
    const path = join(job.folder, 'intended');
    const drawn = await drawables(await readFile(path), 'trim', opened);
    rmSync(path);
    const faces = facesOf(each);
    readingOrder(each).forEach((index, n) => found.set(entryAt(faces, index).id, entryAt(drawn, n)));
  }
  return found;
}

/** The pages of a PDF, to be drawn as far as their media or their trim reaches, until what is opened for them is closed. */
async function drawables(bytes: Uint8Array, shown: 'media' | 'trim', opened: OpenPdf[]): Promise<Drawable[]> {
  const [{ sharedRenderer }, survey] = await Promise.all([
    import('../raster/nodeRenderer'),
    surveyPdf(bytes),
  ]);
  const open = (await sharedRenderer(bytes.length)).open(bytes);
  opened.push(open);
  return survey.pages.map((page, index): Drawable => {
    const seen = page.boxes[shown];
    // As the page's own space has it: turned otherwise, in other units, and not begun at its corner.
    const box: Box = applyToBox(invert(page.toUpright), seen);
    const unit = Math.hypot(page.toUpright[0], page.toUpright[1]);
    return {
      size: { width: widthOf(seen), height: heightOf(seen) },
      draw: (matrix, width, height) => open.gray(index, box, compose(scale(unit), matrix), width, height),
    };
  });
}
