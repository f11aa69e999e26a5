import { MOST_JSON_BYTES, MOST_JSON_DEPTH } from './limits';

/** Why JSON from outside is refused. */
export type JsonErrorCode = 'not-json' | 'json-too-large' | 'json-too-deep' | 'text-unfit';
export class JsonError extends Error {
  constructor(
    readonly code: JsonErrorCode,
    readonly data: Record<string, string | number> = {},
  ) {
    super(code);
  }
}

/**
 * Reads JSON (RFC 8259, UTF-8) that came from outside, in time that grows with its size alone: its length and depth are
 * looked at before it is parsed. Text that cannot be stored (U+0000, half a surrogate pair) is refused. Throws JsonError.
 */
export function parseJson(bytes: Uint8Array): unknown {
  if (bytes.length > MOST_JSON_BYTES)
    throw new JsonError('json-too-large', { most: Math.floor(MOST_JSON_BYTES / (1 << 20)) });
  if (isDeeper(bytes, MOST_JSON_DEPTH)) throw new JsonError('json-too-deep', { most: MOST_JSON_DEPTH });
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new JsonError('not-json');
  }
  if (!isFit(value)) throw new JsonError('text-unfit');
  return value;
}

const [QUOTE, BACKSLASH, OPEN, CLOSE] = [0x22, 0x5c, new Set([0x5b, 0x7b]), new Set([0x5d, 0x7d])];

/** Whether brackets outside of strings lie deeper in one another than `most`. */
function isDeeper(bytes: Uint8Array, most: number): boolean {
  let depth = 0;
  let inString = false;
  for (let at = 0; at < bytes.length; at++) {
    const byte = bytes[at]!;
    if (inString) {
      if (byte === BACKSLASH) at++;
      else if (byte === QUOTE) inString = false;
    } else if (byte === QUOTE) inString = true;
    else if (OPEN.has(byte)) {
      if (++depth > most) return true;
    } else if (CLOSE.has(byte)) depth--;
  }
  return false;
}

/** A value as JSON in which members stand in the order of their names, as in RFC 8785: alike whichever way it was kept. */
export const canonicalJson = (value: unknown): string =>
  JSON.stringify(value, (_, inner: unknown) =>
    typeof inner === 'object' && inner !== null && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).sort(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );

/** Whether all text in a value can be stored: PostgreSQL holds neither U+0000 nor half a surrogate pair. */
export function isFit(value: unknown): boolean {
  if (typeof value === 'string') return !value.includes('\0') && value.isWellFormed();
  if (typeof value !== 'object' || value === null) return true;
  return Object.entries(value).every(([key, inner]) => isFit(key) && isFit(inner));
}
