import { deflateSync } from 'node:zlib';
import type { Sharp, SharpOptions } from 'sharp';
import { heightOf, widthOf } from '../core/measure/box';
import type { PackedImage, Picture, SurveyPage } from '../core/model/survey';
import type { Gray } from './gray';
import { firstOf } from '../core/entries';

/** What a picture is taken in at that states no resolution: what scans for print mostly have. */
export const ASSUMED_PPI = 300;
/** A picture of more dots than this is refused: unpacked it would take gigabytes. */
const MOST_PIXELS = 400_000_000;
const MOST_IMAGES = 5000;
/** Clockwise turns that Exif's orientations ask for; mirrored ones are not made by scanners. */
const EXIF_TURN: Readonly<Record<number, number>> = { 3: 180, 6: 90, 8: 270 };

/** Why a picture was refused. */
export class PictureError extends Error {
  constructor(
    readonly code:
      | 'picture-damaged'
      | 'picture-too-large'
      | 'too-many-pages'
      | 'set-damaged'
      | 'set-empty'
      | 'set-of-others'
      | 'set-too-large',
    readonly data: Record<string, string | number> = {},
  ) {
    super(code);
  }
}

/** The kind of picture that bytes begin as; undefined for all else. */
export function pictureKind(bytes: Uint8Array): Exclude<Picture['kind'], 'SVG'> | undefined {
  const begins = (...wanted: number[]) => wanted.every((byte, i) => bytes[i] === byte);
  if (begins(0xff, 0xd8, 0xff)) return 'JPEG';
  if (begins(0x89, 0x50, 0x4e, 0x47)) return 'PNG';
  if (begins(0x49, 0x49, 0x2a, 0) || begins(0x4d, 0x4d, 0, 0x2a)) return 'TIFF';
  return undefined;
}

/** The images in a picture, ready for a PDF, at the resolution that they state, else at 300 ppi. A JPEG stays as it is, anything else loses nothing. Throws PictureError. */
export async function unpackPicture(bytes: Uint8Array): Promise<{ images: PackedImage[]; picture: Picture }> {
  const kind = pictureKind(bytes)!;
  try {
    const { pages = 1 } = await (await open(bytes)).metadata();
    if (pages > MOST_IMAGES) throw new PictureError('too-many-pages', { most: MOST_IMAGES });
    const images: PackedImage[] = [];
    let stated = true;
    for (let page = 0; page < pages; page++) {
      const image = await pack(bytes, kind, page);
      stated &&= image.ppi > 0;
      images.push({ ...image, ppi: image.ppi || ASSUMED_PPI });
    }
    return { images, picture: { kind, ppi: firstOf(images).ppi, stated } };
  } catch (error) {
    if (error instanceof PictureError) throw error;
    if (/pixel limit/i.test(String(error)))
      throw new PictureError('picture-too-large', { most: MOST_PIXELS / 1e6 });
    throw new PictureError('picture-damaged');
  }
}

/** A JPEG that fills a page, unpacked as light and dark, as the page is seen; undefined if it cannot be. */
export async function grayOfJpeg(
  jpeg: Uint8Array,
  ppi: number,
  { boxes: { media }, rotate }: SurveyPage,
): Promise<Gray | undefined> {
  const [across, down] = [widthOf(media), heightOf(media)].map((side) => Math.round((side / 72) * ppi));
  const [width, height] = rotate % 180 ? [down!, across!] : [across!, down!];
  try {
    // Other colours than these are unpacked by what draws PDFs.
    const picture = await open(jpeg);
    const { channels } = await picture.metadata();
    if (channels !== 1 && channels !== 3) return undefined;
    const resized = await picture.greyscale().toColourspace('b-w').resize(width, height, { fit: 'fill' });
    const turned = rotate ? (await open(await resized.png().toBuffer())).rotate(rotate) : resized;
    const { data, info } = await turned.toColourspace('b-w').raw().toBuffer({ resolveWithObject: true });
    return info.channels === 1 ? { width: info.width, height: info.height, light: data } : undefined;
  } catch {
    return undefined;
  }
}

/** The library is loaded when a picture comes: whoever reads PDFs alone needs not wait for it. */
async function open(bytes: Uint8Array, more: SharpOptions = {}): Promise<Sharp> {
  const { default: sharp } = await import('sharp');
  return sharp(bytes, { limitInputPixels: MOST_PIXELS, ...more });
}

async function pack(bytes: Uint8Array, kind: Picture['kind'], page: number): Promise<PackedImage> {
  const image = await open(bytes, { page });
  const { width, height, density, channels, space, hasAlpha, orientation = 1 } = await image.metadata();
  const [ppi, turn] = [density && density > 1 ? density : 0, EXIF_TURN[orientation] ?? 0];
  if (kind === 'JPEG') {
    const color = channels === 1 ? '/DeviceGray' : channels === 4 ? '/DeviceCMYK' : '/DeviceRGB';
    // Four-ink JPEGs are stored inverted, as the first program that wrote them did.
    const decode = channels === 4 ? ' /Decode [1 0 1 0 1 0 1 0]' : '';
    return {
      width,
      height,
      ppi,
      turn,
      bytes,
      entries: `/ColorSpace ${color} /BitsPerComponent 8 /Filter /DCTDecode${decode}`,
    };
  }
  const gray = space === 'b-w' || space === 'grey16';
  const opaque = hasAlpha ? image.flatten({ background: '#fff' }) : image;
  const plain = opaque.toColourspace(gray ? 'b-w' : 'srgb');
  const { data, info } = await plain.raw({ depth: 'uchar' }).toBuffer({ resolveWithObject: true });
  const color = info.channels === 1 ? '/DeviceGray' : '/DeviceRGB';
  return {
    width: info.width,
    height: info.height,
    ppi,
    turn,
    bytes: deflateSync(data),
    entries: `/ColorSpace ${color} /BitsPerComponent 8 /Filter /FlateDecode`,
  };
}
