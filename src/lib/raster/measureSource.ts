import type { Box } from '../core/measure/box';
import type { Drawn, Survey } from '../core/model/survey';
import { mediaBoxOf } from './mediaBox';
import { startRenderer } from './nodeRenderer';

/** The survey of a PDF with what is drawn on each of its pages. */
export async function measureSource(
  bytes: Uint8Array,
  survey: Survey,
  onPage?: (done: number, total: number) => void,
): Promise<Survey> {
  const pdf = (await startRenderer()).open(bytes);
  const pages = survey.pages.map((page, index) => {
    let drawn: Drawn = {};
    try {
      drawn = rounded(pdf.measure(index, page, mediaBoxOf(page)));
    } catch {
      drawn = { unreadable: true };
    }
    onPage?.(index + 1, survey.pages.length);
    return { ...page, drawn };
  });
  pdf.close();
  return { ...survey, pages };
}

/** To a hundredth of a point, which is finer than it is measured. */
const rounded = ({ ink, text, ppi, numbers, objects, leans }: Drawn): Drawn => ({
  ...(leans === undefined ? {} : { leans }),
  ...(ink ? { ink: roundBox(ink) } : {}),
  ...(text ? { text: roundBox(text) } : {}),
  ...(ppi ? { ppi: round(ppi) } : {}),
  ...(numbers ? { numbers: numbers.map((one) => ({ ...one, x: round(one.x), y: round(one.y) })) } : {}),
  ...(objects ? { objects: objects.map(({ kind, box }) => ({ kind, box: roundBox(box) })) } : {}),
});
const round = (value: number): number => Math.round(value * 100) / 100;
const roundBox = ({ x0, y0, x1, y1 }: Box): Box => ({
  x0: round(x0),
  y0: round(y0),
  x1: round(x1),
  y1: round(y1),
});
