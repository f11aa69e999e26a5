/** Why a typed number was refused: nothing is there, it is none, or its comma may stand before thousands or before a fraction. */
export type NumberErrorCode = 'empty' | 'unread' | 'thousands';

/** `1,000`: a thousand to some, one to others. */
export const AMBIGUOUS = /^[1-9]\d{0,2}(?:,\d{3})+(?!\d)/;

/** Reads a typed number, with a point or a comma before its fraction; or why it cannot be read. */
export function parseNumber(text: string): number | NumberErrorCode {
  const plain = text.trim().replace(/^[−–]/, '-');
  if (!plain) return 'empty';
  if (AMBIGUOUS.test(plain.replace('-', ''))) return 'thousands';
  return /^-?(?:\d+(?:[.,]\d+)?|[.,]\d+)$/.test(plain) ? Number(plain.replace(',', '.')) : 'unread';
}
