import { deflateSync } from 'node:zlib';
import type { Sharp, SharpOptions } from 'sharp';
import { heightOf, widthOf } from '../core/measure/box';
import type { PackedImage, Picture, SurveyPage } from '../core/model/survey';
import type { Gray } from './gray';
import type { Dots } from './scans/clean';
import { firstOf } from '../core/entries';

/** What a picture is taken in at that states no resolution: what scans for print mostly have. */
export const ASSUMED_PPI = 300;
/** A picture of more dots than this is refused: unpacked it would take gigabytes. */
const MOST_PIXELS = 400_000_000;
const MOST_IMAGES = 5000;
/** Quality at which a JPEG made of a scan shows no more than the scan did. */
const CLEAN_QUALITY = 90;
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

/** The dots of a JPEG, a byte for each of so many colours, as they are stored; undefined if it has others or is damaged. */
export async function dotsOfJpeg(jpeg: Uint8Array, colours: 1 | 3): Promise<Uint8Array | undefined> {
  try {
    const picture = await open(jpeg, { ignoreIcc: true });
    const { channels } = await picture.metadata();
    if (channels !== colours) return undefined;
    return await picture
      .toColourspace(colours === 1 ? 'b-w' : 'srgb')
      .raw()
      .toBuffer();
  } catch {
    return undefined;
  }
}

/** Dots as a JPEG that a PDF takes as it is. */
export async function jpegOfDots({ width, height, colours, data }: Dots): Promise<Uint8Array> {
  const picture = await open(data, { raw: { width, height, channels: colours } });
  return picture
    .toColourspace(colours === 1 ? 'b-w' : 'srgb')
    .jpeg({ quality: CLEAN_QUALITY, chromaSubsampling: '4:4:4' })
    .toBuffer();
}

/** The library is loaded when a picture comes: whoever reads PDFs alone needs not wait for it. */
async function open(bytes: Uint8Array, more: SharpOptions = {}): Promise<Sharp> {
  const { default: sharp } = await import('sharp');
  return sharp(bytes, { limitInputPixels: MOST_PIXELS, ...more });
}

async function pack(bytes: Uint8Array, kind: Picture['kind'], page: number): Promise<PackedImage> {
  // Dots stay what they are: their profile goes along.
  const image = await open(bytes, { page, ignoreIcc: true });
  const { width, height, density, channels, space, hasAlpha, orientation = 1, icc } = await image.metadata();
  const [ppi, turn] = [density && density > 1 ? density : 0, EXIF_TURN[orientation] ?? 0];
  const known = (components: 1 | 3 | 4) => {
    const profile = icc && profileFor(icc, components);
    return { ppi, turn, components, ...(profile ? { profile } : {}) };
  };
  if (kind === 'JPEG') {
    const components = channels === 1 || channels === 4 ? channels : 3;
    const decode = components === 4 && isInverted(bytes) ? ' /Decode [1 0 1 0 1 0 1 0]' : '';
    const entries = `/BitsPerComponent 8 /Filter /DCTDecode${decode}`;
    return { ...known(components), width, height, bytes, entries };
  }
  const opaque = hasAlpha ? image.flatten({ background: '#fff' }) : image;
  const into = space === 'b-w' || space === 'grey16' ? 'b-w' : space === 'cmyk' ? 'cmyk' : 'srgb';
  const { data, info } = await opaque
    .toColourspace(into)
    .raw({ depth: 'uchar' })
    .toBuffer({ resolveWithObject: true });
  return {
    ...known(info.channels === 1 || info.channels === 4 ? info.channels : 3),
    width: info.width,
    height: info.height,
    bytes: deflateSync(data),
    entries: '/BitsPerComponent 8 /Filter /FlateDecode',
  };
}

/** What an ICC profile says that it is of (ICC.1:2022, 7.2.8), for each number of colours. */
const SPACES = { 1: 'GRAY', 3: 'RGB ', 4: 'CMYK' } as const;
/** A profile that is one, and of as many colours as the picture has: another one must not be named (ISO 32000-1, 8.6.5.5). */
function profileFor(icc: Buffer, components: 1 | 3 | 4): Uint8Array | undefined {
  const isProfile = icc.length > 128 && icc.toString('latin1', 36, 40) === 'acsp';
  return isProfile && icc.toString('latin1', 16, 20) === SPACES[components] ? icc : undefined;
}

/** Whether a JPEG of four inks has them inverted, as the program did that first wrote such files and marks them so. */
const isInverted = (bytes: Uint8Array): boolean =>
  Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, 1 << 16)).includes(ADOBE);
const ADOBE = Buffer.from([0xff, 0xee, 0, 14, ...Buffer.from('Adobe')]);
