import type { Asked } from '../../core/handover/agree';
import type { Written, WrittenPage } from '../../core/model/written';
import { expandLabels } from '../../core/pages/pageLabels';
import { readLabelRuns } from '../objects/labels';
import { ContentSums } from './contentSum';
import { InkFinder } from './inks';
import { loadPdf } from './load';
import { readBoxes } from './pageBoxes';
import { lacksContent, pagesOf } from './pageTree';
import { shownBy } from './shown';

/** Reads a file that was written here; what it shows is told apart by what was `asked`. Throws PdfError. */
export async function readWritten(
  bytes: Uint8Array,
  { pages: asked }: Pick<Asked, 'pages'>,
): Promise<Written> {
  const document = await loadPdf(bytes);
  const pages = pagesOf(document);
  const sums = new ContentSums();
  const inks = new InkFinder(document.context, sums, 'spots');
  const labels = expandLabels(readLabelRuns(document), pages.length);
  const read = pages.map((page, n): WrittenPage => {
    const { whole } = inks.page(page);
    const label = labels[n];
    const { boxes, toUpright } = readBoxes(page, n + 1, document.context);
    const draws = asked[n]?.shown?.draws;
    return {
      boxes,
      toUpright,
      ...(label === undefined ? {} : { label }),
      ...(whole && !lacksContent(page.dict) ? {} : { incomplete: true as const }),
      ...(draws ? { shown: shownBy(page, draws, sums) } : {}),
    };
  });
  const spots = inks.inks().flatMap(({ kind, name }) => (kind === 'spot' ? [name] : []));
  return { pages: read, spots };
}
