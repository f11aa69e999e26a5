import { POINTS_PER } from '../measure/unit';
import { sidesOf, type SheetPlan } from './plan';

/** Where one page lies. Lengths in millimetres from the lower left corner of the sheet side, as that side is seen. */
export interface MapRow {
  sheet: number;
  side: 'front' | 'back';
  /** Number of the cell on its side, row by row from the head. */
  cell: number;
  /** 0 for a blank that only fills the sheet. */
  position: number;
  name: string;
  label: string;
  x: number;
  y: number;
  width: number;
  height: number;
  /** Clockwise, in degrees. */
  turn: number;
}

/** Points in millimetres, to a thousandth. */
export const mm = (points: number): number => Math.round((points / POINTS_PER.mm) * 1000) / 1000;

/** The sheet map: every cell of every side. */
export const sheetMap = (plan: SheetPlan): MapRow[] =>
  sidesOf(plan).flatMap(({ sheet, side, drawn }) =>
    drawn.cells.map(({ trim, turn, position, name, label, page }, n) => ({
      sheet,
      side,
      cell: n + 1,
      position: page ? position : 0,
      name,
      label: page ? label : '',
      x: mm(trim.x0),
      y: mm(trim.y0),
      width: mm(trim.x1 - trim.x0),
      height: mm(trim.y1 - trim.y0),
      turn,
    })),
  );

const COLUMNS = [
  'sheet',
  'side',
  'cell',
  'position',
  'name',
  'label',
  'x',
  'y',
  'width',
  'height',
  'turn',
] as const;

/** A table as comma-separated values, lines ending as RFC 4180 has them. A text that a spreadsheet would take for a formula is kept a text. */
export function toCsv<Row extends object>(
  rows: readonly Row[],
  columns: readonly (keyof Row & string)[],
): string {
  const field = (value: unknown): string => {
    const text = typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : String(value);
    return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  };
  return [columns, ...rows.map((row) => columns.map((column) => row[column]))]
    .map((line) => `${line.map(field).join(',')}\r\n`)
    .join('');
}

/** The same as JSON, which says the unit of its lengths. */
export const mapJson = (plan: SheetPlan): string =>
  `${JSON.stringify({ unit: 'mm', cells: sheetMap(plan) }, null, 2)}\n`;

export const mapCsv = (plan: SheetPlan): string => toCsv(sheetMap(plan), COLUMNS);
