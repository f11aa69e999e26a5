import { firstOf } from '../core/entries';
import type { PackedImage, Picture } from '../core/model/survey';
import { writePicturePdf } from '../pdf/write/picturePdf';
import { isSvg, SVG_PPI, writeSvgPdf } from '../pdf/write/svgPdf';
import { pictureKind, unpackPicture } from '../raster/picture';
import { isZip, picturesIn } from './pictureSet';

/** A file as PDF: one is as it is; a picture, a ZIP of pictures or a drawing has one made of it, and what is known of it. Throws PdfError, PictureError. */
export async function asPdf(bytes: Uint8Array): Promise<{ pdf: Uint8Array; picture?: Picture }> {
  if (isSvg(bytes))
    return { pdf: await writeSvgPdf(bytes), picture: { kind: 'SVG', ppi: SVG_PPI, stated: true } };
  const pictures = isZip(bytes) ? await picturesIn(Buffer.from(bytes)) : pictureKind(bytes) ? [bytes] : [];
  if (!pictures.length) return { pdf: bytes };
  const images: PackedImage[] = [];
  const known: Picture[] = [];
  for (const each of pictures) {
    const unpacked = await unpackPicture(each);
    images.push(...unpacked.images);
    known.push(unpacked.picture);
  }
  const picture = { ...firstOf(known), stated: known.every(({ stated }) => stated) };
  return { pdf: await writePicturePdf(images), picture };
}
