import { thousandsIn } from './decimalSign';

/** Why a typed number was refused: nothing is there, it is none, or its comma may stand before thousands or before a fraction. */
export type NumberErrorCode = 'empty' | 'unread' | 'thousands';

/** Reads a typed number, with a point or a comma before its fraction; or why it cannot be read. */
export function parseNumber(text: string): number | NumberErrorCode {
  const plain = text.trim().replace(/^[−–]/, '-');
  if (!plain) return 'empty';
  if (thousandsIn(plain.replace('-', ''))) return 'thousands';
  return /^-?(?:\d+(?:[.,]\d+)?|[.,]\d+)$/.test(plain) ? Number(plain.replace(',', '.')) : 'unread';
}
