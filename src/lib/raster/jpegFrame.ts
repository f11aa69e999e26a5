/** What the frame header of a JPEG says (ITU-T T.81, B.2.2), in dots. */
export interface JpegFrame {
  width: number;
  height: number;
  colours: number;
}

/** The segments of a JPEG before its dots (B.1.1.4), each with its marker's second byte and where it lies. */
function* segmentsOf(jpeg: Uint8Array): Generator<{ marker: number; from: number; to: number }> {
  if (jpeg[0] !== 0xff || jpeg[1] !== 0xd8) return;
  for (let from = 2; from + 9 < jpeg.length && jpeg[from] === 0xff;) {
    const marker = jpeg[from + 1]!;
    if (marker === SCAN) return;
    const to = from + 2 + wordAt(jpeg, from + 2);
    yield { marker, from, to };
    from = to;
  }
}
const wordAt = (jpeg: Uint8Array, at: number): number => (jpeg[at] ?? 0) * 256 + (jpeg[at + 1] ?? 0);
const SCAN = 0xda;

/** The frame of a JPEG, baseline, extended or progressive; undefined if it is none. */
export function jpegFrame(jpeg: Uint8Array): JpegFrame | undefined {
  for (const { marker, from } of segmentsOf(jpeg))
    if (marker >= 0xc0 && marker <= 0xc2)
      return { width: wordAt(jpeg, from + 7), height: wordAt(jpeg, from + 5), colours: jpeg[from + 9]! };
  return undefined;
}

/**
 * A JPEG without what others than PDF go by: which way up the camera was held (Exif, application segment 1), and its colour
 * profile (segment 2). A page takes its dots as they lie, in the colours that the page says (ISO 32000-1, 7.4.8).
 */
export function bareJpeg(jpeg: Uint8Array<ArrayBuffer>): Blob {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let kept = 0;
  for (const { marker, from, to } of segmentsOf(jpeg)) {
    if (marker !== 0xe1 && marker !== 0xe2) continue;
    parts.push(jpeg.subarray(kept, from));
    kept = to;
  }
  return new Blob([...parts, jpeg.subarray(kept)], { type: 'image/jpeg' });
}
