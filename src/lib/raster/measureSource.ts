import type { Box } from '../core/measure/box';
import type { Drawn, Survey, SurveyPage } from '../core/model/survey';
import { mediaBoxOf } from './mediaBox';
import { sharedRenderer } from './nodeRenderer';
import type { OpenPdf } from './pdfium';

/** Scans that are looked at side by side: one is unpacked or read while another one is looked at. */
const AT_ONCE = 2;

/** The survey of a PDF with what is drawn on each of its pages; scans are read where no text lies behind them. */
export async function measureSource(
  bytes: Uint8Array,
  survey: Survey,
  onPage?: (done: number, total: number) => void,
): Promise<Survey> {
  const pdf = (await sharedRenderer(bytes.length)).open(bytes);
  const drawn: Drawn[] = [];
  const looking = new Set<Promise<void>>();
  let done = 0;
  try {
    for (const [index, page] of survey.pages.entries()) {
      const look = measureOne(pdf, index, page).then((own) => {
        drawn[index] = own;
        looking.delete(look);
        onPage?.(++done, survey.pages.length);
      });
      looking.add(look);
      if (looking.size >= AT_ONCE) await Promise.race(looking);
    }
    await Promise.all(looking);
  } finally {
    await Promise.allSettled(looking);
    pdf.close();
  }
  return {
    ...survey,
    pages: survey.pages.map((page, index) => ({ ...page, drawn: rounded(drawn[index]!) })),
  };
}

async function measureOne(pdf: OpenPdf, index: number, page: SurveyPage): Promise<Drawn> {
  const media = mediaBoxOf(page);
  try {
    const scan = pdf.scan(index, page, media);
    if (!scan) return pdf.measure(index, page, media);
    const { grayOfJpeg } = await import('./picture');
    const { lookAt } = await import('./scans/lookAt');
    const gray = scan.jpeg && (await grayOfJpeg(scan.jpeg, scan.ppi, page));
    const seen = gray ? { gray, ppi: scan.ppi } : pdf.seen(index, page, media, scan.ppi);
    const own = pdf.measure(index, page, media, seen);
    // What text behind it says of it counts for more than what is read off it.
    const read = !own.numbers?.length && own.leans === undefined;
    return { ...own, ...(await lookAt(seen.gray, seen.ppi, read).catch(() => undefined)) };
  } catch {
    return { unreadable: true };
  }
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
