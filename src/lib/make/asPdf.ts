import type { Picture } from '../core/model/survey';
import { writePicturePdf } from '../pdf/write/picturePdf';
import { isSvg, SVG_PPI, writeSvgPdf } from '../pdf/write/svgPdf';
import { pictureKind, unpackPicture } from '../raster/picture';

/** A file as PDF: one is as it is; a picture or a drawing has one made of it, and what is known of it. Throws PdfError, PictureError. */
export async function asPdf(bytes: Uint8Array): Promise<{ pdf: Uint8Array; picture?: Picture }> {
  if (isSvg(bytes))
    return { pdf: await writeSvgPdf(bytes), picture: { kind: 'SVG', ppi: SVG_PPI, stated: true } };
  if (!pictureKind(bytes)) return { pdf: bytes };
  const { images, picture } = await unpackPicture(bytes);
  return { pdf: await writePicturePdf(images), picture };
}
