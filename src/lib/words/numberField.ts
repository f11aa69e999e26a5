import { parseNumber } from '../core/measure/parseNumber';

/** What a field for a number takes. */
export interface NumberLimits {
  least: number;
  most: number;
  whole: boolean;
  /** What is counted. */
  of: string | undefined;
  /** It may be empty. */
  optional: boolean;
}

/** `1,000` can be read in two ways: both of them. */
export const sayThousands = (text: string): string =>
  `“${text}” can be read in two ways: type ${text.replace(',', '.')} or ${text.replaceAll(',', '')}.`;

/** Why what was typed cannot be the number of a field; undefined if it can. */
export function sayWrongNumber(
  text: string,
  { least, most, whole, of, optional }: NumberLimits,
): string | undefined {
  const number = parseNumber(text);
  if (number === 'thousands') return sayThousands(text.trim());
  if (number === 'empty' && optional) return undefined;
  if (typeof number === 'number' && number >= least && number <= most && (!whole || Number.isInteger(number)))
    return undefined;
  return `${whole ? 'A whole number' : 'A number'}${of ? ` of ${of}` : ''} ${sayRange(least, most)}${optional ? ', or nothing' : ''}.`;
}

const sayRange = (least: number, most: number): string =>
  Number.isFinite(most) ? `from ${least} to ${most}` : `from ${least} on`;
