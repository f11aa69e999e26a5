import { PdfError } from '../objects/pdfError';
import { PDFDict, PDFName, type PDFObject } from '@cantoo/pdf-lib';
import { surveyPageSchema, type Ink, type Survey, type SurveyPage } from '../../core/model/survey';
import { expandLabels } from '../../core/pages/pageLabels';
import { activeContent } from './active';
import { annotationsOf } from './annotations';
import { operationsOf } from '../content/operations';
import { pageContent, streamsOf } from '../objects/decodeStream';
import { ContentSums } from './contentSum';
import { InkFinder } from './inks';
import { readLabelRuns } from '../objects/labels';
import { loadPdf, readablePdf } from './load';
import { bookmarksOf } from './outline';
import { photographOn } from './photograph';
import { readBoxes } from './pageBoxes';
import { pagesOf, lacksContent, resourcesOf } from './pageTree';
import { entryAt, entryOf } from '../../core/entries';
import { textOf } from '../objects/libraryObjects';

/** Reads the facts of a PDF. Throws PdfError. `onPage` hears how many pages are done of how many. */
export async function surveyPdf(
  bytes: Uint8Array,
  onPage?: (done: number, total: number) => void,
): Promise<Survey> {
  const document = await loadPdf(bytes);
  const { decrypted, rebuilt } = await readablePdf(bytes);
  const pages = pagesOf(document);
  const sums = new ContentSums();
  const inks = new InkFinder(document.context, sums);
  const labels = expandLabels(readLabelRuns(document), pages.length);
  const annotations = annotationsOf(pages, document.context);
  const printed = new Set(annotations.print);
  const onPages: Ink[][] = [];
  const contents: (number | null)[] = [];
  let isShown = false;
  const surveyed = pages.map((page, index): Survey['pages'][number] => {
    const { inks: own, whole } = inks.page(page);
    onPages.push(own);
    onPage?.(index + 1, pages.length);
    const label = labels[index];
    const boxes = readBoxes(page, index + 1, document.context);
    const incomplete = !whole || lacksContent(page.dict);
    const shows = printed.has(index) || !isEmpty(page.dict);
    isShown ||= shows;
    // What prints of annotations is drawn into the content, and what is not whole may be read in more ways than one.
    contents.push(printed.has(index) || incomplete ? null : sums.of(streamsOf(page.dict), resourcesOf(page)));
    const jpeg = printed.has(index) ? undefined : photographOn(page, boxes, bytes);
    return {
      ...boxes,
      ...(jpeg ? { jpeg } : {}),
      ...(label === undefined ? {} : { label }),
      ...sheetOf(page.dict),
      ...(incomplete ? { incomplete: true as const } : {}),
      // Of a page that cannot be read nobody knows that it is empty.
      ...(shows || incomplete ? {} : { empty: true as const }),
    };
  });
  // Of a file that had to be put together, pages that show nothing are none that anybody drew.
  if (rebuilt && !isShown) throw new PdfError('damaged', { reason: 'no page with anything on it is left' });
  const info = document.context.lookup(document.context.trailerInfo.Info);
  const about = (key: string) => (info instanceof PDFDict ? textOf(info.lookup(PDFName.of(key))) : undefined);
  const [title, producer] = [about('Title'), about('Producer')];
  const all = inks.inks();
  const at = new Map(all.map(({ kind, name }, n) => [`${kind} ${name}`, n]));
  return {
    version: 1,
    pages: surveyed.map((page, index) => ({
      ...page,
      inks: entryAt(onPages, index)
        .map(({ kind, name }) => entryOf(at, `${kind} ${name}`))
        .sort((a, b) => a - b),
    })),
    contents,
    inks: all,
    bookmarks: bookmarksOf(document, new Map(pages.map((page, index) => [page.ref, index]))),
    ...(title ? { title } : {}),
    ...(producer ? { producer } : {}),
    pdfVersion: document.context.header.getVersionString(),
    encryption: decrypted ? 'owner' : 'none',
    annotations,
    ...(rebuilt ? { rebuilt: true as const } : {}),
    byteCount: bytes.length,
    active: activeContent(document.context, false),
  };
}

/** Content that is longer, packed, than this many bytes draws something. */
const MOST_OF_NOTHING = 2048;
/** Operators that paint (ISO 32000-1, table 51: paths, text, shadings, XObjects, inline images). */
const PAINTS = new Set([
  'f',
  'F',
  'f*',
  'B',
  'B*',
  'b',
  'b*',
  'S',
  's',
  'sh',
  'Do',
  'Tj',
  'TJ',
  "'",
  '"',
  'ID',
]);

/** Whether a page draws nothing at all. */
function isEmpty(page: PDFDict): boolean {
  const packed = streamsOf(page).map((part) => part.getContentsSize());
  if (packed.reduce((sum, size) => sum + size, 0) > MOST_OF_NOTHING) return false;
  const text = pageContent(page).toString('latin1');
  for (const { operator } of operationsOf(text)) if (PAINTS.has(operator)) return false;
  return true;
}

/** What a side of a sheet that was made here says of itself. */
function sheetOf(page: PDFDict): Pick<SurveyPage, 'sheet'> {
  let dict: PDFDict | undefined = page;
  for (const key of ['PieceInfo', 'Folder', 'Private']) {
    const next: PDFObject | undefined = dict?.lookup(PDFName.of(key));
    dict = next instanceof PDFDict ? next : undefined;
  }
  const word = (key: string) => {
    const value = dict?.lookup(PDFName.of(key));
    return value instanceof PDFName ? value.decodeText() : '';
  };
  const read = surveyPageSchema.shape.sheet.safeParse({ side: word('Side'), axis: word('Axis') });
  return read.success && read.data ? { sheet: read.data } : {};
}
