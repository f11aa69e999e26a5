import { t } from './language';
import { MOST_BLEED } from '../core/docket/shapes';
import { LengthError, type LengthErrorCode } from '../core/measure/parseLength';
import type { Size } from '../core/measure/box';
import { formatFigure, formatLength } from '../core/measure/formatLength';
import { writeNumber } from '../core/measure/decimalSign';
import { LEAST_POINTS, MOST_POINTS } from '../core/measure/lengthSchema';
import { mm, type Unit } from '../core/measure/unit';
import { sayThousands } from './numberField';

const SAY: Record<LengthErrorCode, (error: LengthError) => string> = {
  empty: () => t`Type a length, such as 210, 8.5in or 297/3.`,
  unexpected: ({ seen }) =>
    t`“${seen}” cannot be read here. Lengths look like 210, 8.5in, 1/8in, 12p6 or 210-30.`,
  'unknown-unit': ({ seen }) => t`“${seen}” is no unit known here. Use mm, cm, in, pt or p (picas).`,
  area: () => t`A length times a length is an area. Multiply by a plain number.`,
  'divide-by-zero': () => t`Dividing by zero gives no length.`,
  thousands: ({ seen }) => sayThousands(seen),
  'two-signs': () => t`Two signs follow each other. Type one, such as -5, or a sum, such as 210-(-5).`,
  pixels: () =>
    t`How large a pixel is depends on how many there are in an inch: type it behind, as in 1080px@300.`,
  'not-finite': () => t`This number is too large to be a length.`,
};

/** The sentence for a typed length that was refused. */
export const sayLengthError = (error: LengthError): string => SAY[error.code](error);

/** Why a length in points can be nowhere on paper; undefined when it can. */
export function sayNoLength(points: number, unit: Unit): string | undefined {
  if (Math.abs(points) > MOST_POINTS)
    return t`Longer than 200 in (5080 mm), the largest page a PDF reader promises to open.`;
  if (points !== 0 && formatFigure(points, 'mm') === '0' && formatFigure(points, unit) === '0')
    return t`Too short to be printed or cut: type 0, or a longer one.`;
  return undefined;
}

/** Why a length in points cannot be the side of a page; undefined when it can. */
export function sayPageLength(points: number): string | undefined {
  if (points <= 0) return t`A page needs a side longer than 0.`;
  if (points < LEAST_POINTS)
    return t`Shorter than ${formatLength(LEAST_POINTS, 'mm')}, the smallest page a PDF reader promises to open.`;
  if (points > MOST_POINTS)
    return t`Longer than 200 in (5080 mm), the largest page a PDF reader promises to open.`;
  return undefined;
}

/** Why a length in points cannot be a distance on a sheet; undefined when it can. */
export function sayDistance(points: number, what: string, sheet: Size, unit: Unit): string | undefined {
  const most = Math.max(sheet.width, sheet.height);
  if (points < 0) return t`${what} cannot be less than 0.`;
  return points >= most
    ? t`Larger than the sheet, whose long side is ${formatLength(most, unit)}.`
    : undefined;
}

/** A scale as a percentage, to a hundredth: `70.71 %`. */
export const sayPercent = (scale: number): string => `${writeNumber(Math.round(scale * 10_000) / 100)} %`;

/** A long way as it is said: in metres where it is one or more and lengths are metric. */
export const sayWay = (points: number, unit: Unit): string =>
  (unit === 'mm' || unit === 'cm') && points >= mm(1000)
    ? t`${writeNumber((points / mm(1000)).toFixed(3))} m`
    : formatLength(points, unit);

/** Why a bleed will not do; undefined if it will. */
export function sayWrongBleed(points: number, unit: Unit): string | undefined {
  if (points < 0) return t`Bleed lies outside the trim, so it cannot be less than 0.`;
  if (points > MOST_BLEED) return t`More than ${formatLength(MOST_BLEED, unit)}: no cut is that far off.`;
  return undefined;
}
