import { heightOf, widthOf } from '../core/measure/box';
import type { Cleaning } from '../core/pages/cleaning';
import type { Survey } from '../core/model/survey';
import { changePictures, type PagePicture } from '../pdf/write/pagePictures';
import { cleanDots, type Dots } from '../raster/scans/clean';
import { jpegOfDots, dotsOfJpeg } from '../raster/picture';

/**
 * A copy of a PDF in which the scans are clean, and which of its pages (from 0) that are. Pages that are no scans, of four inks,
 * or of ink and paper alone stay as they are. Throws PdfError.
 */
export function cleanScans(
  bytes: Uint8Array,
  survey: Survey,
  how: Cleaning,
  onPage?: (done: number, total: number) => void,
): Promise<{ bytes: Uint8Array; changed: number[] }> {
  const scans = survey.pages.flatMap(({ drawn }, index) => (drawn?.scan ? [index] : []));
  let done = 0;
  return changePictures(bytes, scans, async (picture, page) => {
    const { media } = survey.pages[page]!.boxes;
    const ppi = (72 * Math.max(picture.width, picture.height)) / Math.max(widthOf(media), heightOf(media));
    const made = await cleanOne(picture, how, ppi);
    onPage?.(++done, scans.length);
    return made;
  });
}

async function cleanOne(picture: PagePicture, how: Cleaning, ppi: number): Promise<Uint8Array | undefined> {
  const { width, height, colours } = picture;
  const data = picture.dots?.slice() ?? (await dotsOfJpeg(picture.jpeg!, colours));
  if (data?.length !== width * height * colours) return undefined;
  const dots: Dots = { width, height, colours, data };
  cleanDots(dots, how, ppi);
  return jpegOfDots(dots);
}
