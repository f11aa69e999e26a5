import sharp from 'sharp';

/** How something lies on the glass of a scanner, and what the scanner makes of it. */
export interface OnGlass {
  ppi: number;
  /** Clockwise quarter turns, and degrees clockwise beyond them. */
  turn?: 0 | 90 | 180 | 270 | undefined;
  skew?: number | undefined;
  /** Glass seen beyond the paper on each side, in mm, with the lid behind it: 0 black, 255 white. */
  beyond?: number | undefined;
  lid?: number | undefined;
  /** Spread of the noise of its sensor, in tones. */
  noise?: number | undefined;
  /** How much of the print on its back shows through the paper, as a share. */
  through?: number | undefined;
  /** How much darker it is at the fold, as a share; and specks of dirt on the glass. */
  shadow?: number | undefined;
  specks?: number | undefined;
  /** A JPEG of this quality; a TIFF without. */
  quality?: number | undefined;
  /** Every chance that is taken, 0 to 1. */
  chance?: () => number;
}

const PAPER = { r: 236, g: 226, b: 202 };
const toPixels = (mm: number, ppi: number): number => Math.round((mm / 25.4) * ppi);

/** A picture of paper with pages printed on it, each beside the last, `size` of one of them in mm; grey dots at `ppi`. */
export interface Printed {
  pages: readonly { light: Uint8Array; width: number; height: number }[];
}

/** Scans what is printed, the pages beside each other: the bytes of the picture. */
export async function scanned({ pages }: Printed, how: OnGlass): Promise<Buffer> {
  const { ppi, turn = 0, skew = 0, beyond = 0, lid = 40, quality } = how;
  const lies = lay(pages, how);
  const margin = toPixels(beyond, ppi);
  const ground = { r: lid, g: lid, b: lid };
  const laid = await sharp(lies.data, { raw: { ...lies.size, channels: 3 } })
    .extend({ top: margin, bottom: margin, left: margin, right: margin, background: ground })
    .raw()
    .toBuffer();
  const [width, height] = [lies.size.width + 2 * margin, lies.size.height + 2 * margin];
  const turned = skew
    ? await sharp(laid, { raw: { width, height, channels: 3 } })
        .rotate(skew, { background: ground })
        .raw()
        .toBuffer({ resolveWithObject: true })
    : undefined;
  // The glass is as large as it is: what is askew may reach beyond it.
  const askew = turned
    ? await sharp(turned.data, {
        raw: { width: turned.info.width, height: turned.info.height, channels: 3 },
      })
        .extract({
          left: Math.floor((turned.info.width - width) / 2),
          top: Math.floor((turned.info.height - height) / 2),
          width,
          height,
        })
        .raw()
        .toBuffer()
    : laid;
  spoil(askew, width, how);
  const picture = sharp(askew, { raw: { width, height, channels: 3 } })
    .rotate(turn)
    .withMetadata({ density: ppi });
  return quality ? picture.jpeg({ quality }).toBuffer() : picture.tiff({ compression: 'lzw' }).toBuffer();
}

/** Paper with pages side by side, darker at the fold between two. */
function lay(pages: Printed['pages'], { shadow = 0, through = 0, ppi }: OnGlass) {
  const size = {
    width: pages.reduce((sum, { width }) => sum + width, 0),
    height: Math.max(...pages.map(({ height }) => height)),
  };
  const data = Buffer.alloc(size.width * size.height * 3);
  const reach = toPixels(FOLD_MM, ppi);
  let left = 0;
  for (const [n, { width, height, light }] of pages.entries()) {
    const lit = Float32Array.from({ length: width }, (_, x) => {
      const fold = n ? x : pages.length > 1 ? width - 1 - x : Infinity;
      return (1 - shadow * Math.exp(-((fold / reach) ** 2) * 4)) / 255;
    });
    for (let y = 0; y < size.height; y++)
      for (let x = 0, at = (y * size.width + left) * 3; x < width; x++, at += 3) {
        let tone = (y < height ? light[y * width + x]! : 255) * lit[x]!;
        // The back carries much the same, seen from behind.
        if (through && y < height)
          tone *= 1 - through * (1 - light[(height - 1 - y) * width + width - 1 - x]! / 255);
        data[at] = PAPER.r * tone;
        data[at + 1] = PAPER.g * tone;
        data[at + 2] = PAPER.b * tone;
      }
    left += width;
  }
  return { data, size };
}

/** How far from a fold paper rises from the glass. */
const FOLD_MM = 9;

/** Noise and dirt. */
function spoil(
  data: Buffer,
  width: number,
  { noise = 0, specks = 0, ppi, chance = Math.random }: OnGlass,
): void {
  if (noise) {
    // Near enough a bell: the mean of three chances. The same again and again, from another place on each scan.
    const bell = Float32Array.from(
      { length: 65_521 },
      () => (chance() + chance() + chance() - 1.5) * 2 * noise,
    );
    const from = Math.floor(chance() * bell.length);
    for (let at = 0, n = from; at < data.length; at += 3, n++) {
      const by = bell[n % bell.length]!;
      for (let c = at; c < at + 3; c++) data[c] = Math.max(0, Math.min(255, data[c]! + by));
    }
  }
  const height = data.length / 3 / width;
  for (let n = 0; n < specks; n++) {
    const [x, y, r] = [chance() * width, chance() * height, 1 + chance() * 0.012 * ppi];
    for (let v = Math.max(0, Math.floor(y - r)); v < Math.min(height, y + r); v++)
      for (let u = Math.max(0, Math.floor(x - r)); u < Math.min(width, x + r); u++)
        if ((u - x) ** 2 + (v - y) ** 2 < r * r) data.fill(50, (v * width + u) * 3, (v * width + u) * 3 + 3);
  }
}
