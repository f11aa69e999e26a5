import { heightOf, widthOf, type Box } from '../core/measure/box';
import { compose, scale } from '../core/measure/matrix';
import type { Drawn, Survey, SurveyPage } from '../core/model/survey';
import { mediaBoxOf } from './mediaBox';
import { startRenderer } from './nodeRenderer';
import type { OpenPdf } from './pdfium';
import type { Looked } from './scans/lookAt';

/** Scans are looked at with no more dots an inch than these, and no more dots in all. */
const [MOST_PPI, MOST_DOTS] = [300, 40e6];
/** Scans that are looked at side by side: one is read while the next is drawn. */
const AT_ONCE = 2;

/** The survey of a PDF with what is drawn on each of its pages; scans are read where no text lies behind them. */
export async function measureSource(
  bytes: Uint8Array,
  survey: Survey,
  onPage?: (done: number, total: number) => void,
): Promise<Survey> {
  const pdf = (await startRenderer()).open(bytes);
  const drawn: Drawn[] = [];
  const looking = new Set<Promise<void>>();
  let done = 0;
  const measured = () => onPage?.(++done, survey.pages.length);
  try {
    for (const [index, page] of survey.pages.entries()) {
      const own = measureOne(pdf, index, page);
      drawn.push(own);
      if (own.unreadable || !pdf.isScan(index, mediaBoxOf(page))) {
        measured();
        continue;
      }
      const look = lookAtOne(pdf, index, page, own)
        .then((found) => void (drawn[index] = { ...own, ...found }))
        .catch(() => undefined)
        .then(() => {
          looking.delete(look);
          measured();
        });
      looking.add(look);
      if (looking.size >= AT_ONCE) await Promise.race(looking);
    }
    await Promise.all(looking);
  } finally {
    pdf.close();
  }
  return {
    ...survey,
    pages: survey.pages.map((page, index) => ({ ...page, drawn: rounded(drawn[index]!) })),
  };
}

function measureOne(pdf: OpenPdf, index: number, page: SurveyPage): Drawn {
  try {
    return pdf.measure(index, page, mediaBoxOf(page));
  } catch {
    return { unreadable: true };
  }
}

/** Looks at a scan as it is seen; what text behind it says of it counts for more than what is read off it. */
async function lookAtOne(
  pdf: OpenPdf,
  index: number,
  page: SurveyPage,
  { numbers, leans, ppi = MOST_PPI }: Drawn,
): Promise<Looked> {
  const { lookAt } = await import('./scans/lookAt');
  const { media } = page.boxes;
  const [width, height] = [widthOf(media) / 72, heightOf(media) / 72];
  const fine = Math.min(ppi, MOST_PPI, Math.sqrt(MOST_DOTS / (width * height)));
  const unit = Math.hypot(page.toUpright[0], page.toUpright[1]);
  const [across, down] = [Math.round(width * fine), Math.round(height * fine)];
  const shown = compose(scale(unit), [fine / 72, 0, 0, -fine / 72, 0, down]);
  const gray = pdf.gray(index, mediaBoxOf(page), shown, across, down);
  return lookAt(gray, fine, !numbers?.length && leans === undefined);
}

/** To a hundredth of a point, which is finer than it is measured. */
const rounded = ({ ink, text, numbers, objects, scan, ppi, ...rest }: Drawn): Drawn => ({
  ...rest,
  ...(ink ? { ink: roundBox(ink) } : {}),
  ...(text ? { text: roundBox(text) } : {}),
  ...(ppi ? { ppi: round(ppi) } : {}),
  ...(numbers ? { numbers: numbers.map((one) => ({ ...one, x: round(one.x), y: round(one.y) })) } : {}),
  ...(objects ? { objects: objects.map(({ kind, box }) => ({ kind, box: roundBox(box) })) } : {}),
  ...(scan
    ? {
        scan: {
          ...scan,
          paper: roundBox(scan.paper),
          ...(scan.fold === undefined ? {} : { fold: round(scan.fold) }),
        },
      }
    : {}),
});
const round = (value: number): number => Math.round(value * 100) / 100;
const roundBox = ({ x0, y0, x1, y1 }: Box): Box => ({
  x0: round(x0),
  y0: round(y0),
  x1: round(x1),
  y1: round(y1),
});
