import { constants, inflateRawSync, inflateSync } from 'node:zlib';
import { codeOf } from '../../core/unknown';
import { PdfError } from './pdfError';

/** Most bytes that one stream may unpack to. */
export const MOST_UNPACKED = 256 * 1024 * 1024;

/** Of data packed as zlib has it, two bytes say how (RFC 1950, 2.2). */
const HEAD = 2;
const PART = { finishFlush: constants.Z_SYNC_FLUSH };

/** Data that end too early. */
const CUT = 'Z_BUF_ERROR';

/**
 * What viewers see of data that Flate packed (ISO 32000-1, 7.4.4): all of it, even where the check sum behind it is missing or
 * wrong; of data that are cut short or damaged, what comes before that. They are `whole` if nothing says that they may be
 * other than they were. Throws PdfError `unpacks-too-large` past `most` bytes.
 */
export function inflated(packed: Uint8Array, most = MOST_UNPACKED): { bytes: Uint8Array; whole: boolean } {
  const limit = { maxOutputLength: most };
  const plain = attempt(() => inflateSync(packed, limit));
  if (typeof plain !== 'string') return { bytes: plain, whole: true };
  const [how = 0, check = 0] = packed;
  if ((how & 15) !== 8 || (how * 256 + check) % 31) return { bytes: new Uint8Array(), whole: !packed.length };
  const data = packed.subarray(HEAD);
  const all = attempt(() => inflateRawSync(data, limit));
  if (typeof all !== 'string') return { bytes: all, whole: plain === CUT };
  // The longest beginning that unpacks, halved towards.
  let [fine, bad] = [0, data.length + 1];
  let bytes: Uint8Array = new Uint8Array();
  while (bad - fine > 1) {
    const middle = (fine + bad) >> 1;
    const part = attempt(() => inflateRawSync(data.subarray(0, middle), { ...limit, ...PART }));
    if (typeof part === 'string') bad = middle;
    else [fine, bytes] = [middle, part];
  }
  return { bytes, whole: false };
}

/** What is unpacked, or the code of what is wrong. */
function attempt(unpack: () => Uint8Array): Uint8Array | string {
  try {
    return unpack();
  } catch (error) {
    const code = codeOf(error);
    if (code === 'ERR_BUFFER_TOO_LARGE') throw new PdfError('unpacks-too-large');
    return String(code);
  }
}
