import { writeNumber } from './decimalSign';
import { POINTS_PER, type Unit } from './unit';

const DECIMALS: Record<Unit, number> = { mm: 3, cm: 4, in: 4, 'in-decimal': 4, pt: 2, pica: 2 };
/** How each unit is written after a figure. */
export const UNIT_SIGN: Record<Unit, string> = {
  mm: 'mm',
  cm: 'cm',
  in: 'in',
  'in-decimal': 'in',
  pt: 'pt',
  pica: 'p',
};
const FINEST_FRACTION = 64;

/**
 * Writes points as a figure in `unit`, without the unit sign. Inches that fall on a 64th are written as a mixed
 * number (`3 5/8`); picas as picas and points (`12p6`). `parseLength` of the result with the same unit gives the length back
 * to within half of the last digit.
 */
export function formatFigure(points: number, unit: Unit): string {
  if (unit === 'pica') return formatPica(points);
  const value = points / POINTS_PER[unit];
  return (
    (unit === 'in' ? inchFraction(value) : undefined) ?? writeNumber(trimZeros(value.toFixed(DECIMALS[unit])))
  );
}

/** Writes points as a figure with its unit: `148 mm`. */
export const formatLength = (points: number, unit: Unit): string =>
  unit === 'pica' ? formatPica(points) : `${formatFigure(points, unit)} ${UNIT_SIGN[unit]}`;

/** Writes width × height in points as `148 × 210 mm`. */
export const formatSize = (width: number, height: number, unit: Unit): string =>
  unit === 'pica'
    ? `${formatPica(width)} × ${formatPica(height)}`
    : `${formatFigure(width, unit)} × ${formatLength(height, unit)}`;

function inchFraction(value: number): string | undefined {
  const parts = Math.round(Math.abs(value) * FINEST_FRACTION);
  if (Math.abs(parts - Math.abs(value) * FINEST_FRACTION) > 1e-3) return undefined;
  const whole = Math.floor(parts / FINEST_FRACTION);
  let top = parts % FINEST_FRACTION;
  const sign = value < 0 && parts > 0 ? '-' : '';
  if (top === 0) return `${sign}${whole}`;
  let bottom = FINEST_FRACTION;
  while (top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  return `${sign}${whole ? `${whole} ` : ''}${top}/${bottom}`;
}

function formatPica(points: number): string {
  const rounded = Math.round(Math.abs(points) * 100) / 100;
  const rest = rounded % 12;
  const text = `${Math.floor(rounded / 12)}p${rest ? writeNumber(trimZeros(rest.toFixed(2))) : ''}`;
  return points < 0 && rounded > 0 ? `-${text}` : text;
}

const trimZeros = (text: string): string => {
  const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return short === '-0' ? '0' : short;
};
