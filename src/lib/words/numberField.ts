import { t } from './language';
import { writeNumber } from '../core/measure/decimalSign';
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
  t`“${text}” can be read in two ways: type ${writeNumber(text.replace(',', '.'))} or ${text.replaceAll(/[.,]/g, '')}.`;

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
  return `${whole ? t`A whole number` : t`A number`}${of ? t` of ${of}` : ''} ${sayRange(least, most)}${optional ? t`, or nothing` : ''}.`;
}

const sayRange = (least: number, most: number): string =>
  Number.isFinite(most) ? t`from ${least} to ${most}` : t`from ${least} on`;
