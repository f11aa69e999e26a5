import type { Raster } from './pdfium';

/** Lengths of the two headers in bytes: of the file, and of the bitmap in its fourth version, which has transparency. */
const [FILE, BITMAP] = [14, 108];
const MASKS = { bits: 3, red: 0xff, green: 0xff00, blue: 0xff0000, alpha: 0xff000000 };
/** 'Win ': the colours are those of the screen (sRGB by default). */
const SCREEN = 0x57696e20;

/**
 * The header of a picture whose dots follow as they are, unpacked (BMP with BITMAPV4HEADER): nothing is spent on packing what is
 * shown at once. Red, green, blue, alpha in bytes, rows from the head down.
 */
export function bmpHeader({ width, height, rgba }: Raster): ArrayBuffer {
  const header = new ArrayBuffer(FILE + BITMAP);
  const at = new DataView(header);
  at.setUint16(0, 0x424d);
  at.setUint32(2, FILE + BITMAP + rgba.length, true);
  at.setUint32(10, FILE + BITMAP, true);
  at.setUint32(14, BITMAP, true);
  at.setInt32(18, width, true);
  // Negative: the first row is at the head.
  at.setInt32(22, -height, true);
  at.setUint16(26, 1, true);
  at.setUint16(28, 32, true);
  at.setUint32(30, MASKS.bits, true);
  at.setUint32(34, rgba.length, true);
  for (const [n, mask] of [MASKS.red, MASKS.green, MASKS.blue, MASKS.alpha].entries())
    at.setUint32(54 + 4 * n, mask, true);
  at.setUint32(70, SCREEN, true);
  return header;
}
