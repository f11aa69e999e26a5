/** Units of length that a job can be shown in; inches as fractions or as decimals. Inside, every length is a PostScript point: 1/72 in (ISO 32000-1, 8.3.2.3). */
export const UNITS = ['mm', 'cm', 'in', 'in-decimal', 'pt', 'pica'] as const;
export type Unit = (typeof UNITS)[number];

/** Points in one of each unit. 1 in = 25.4 mm exactly; 1 pica = 12 pt. */
export const POINTS_PER: Record<Unit, number> = {
  mm: 72 / 25.4,
  cm: 720 / 25.4,
  in: 72,
  'in-decimal': 72,
  pt: 1,
  pica: 12,
};

/** How far an arrow key moves a length in each unit, in points. */
export const NUDGE: Record<Unit, number> = {
  mm: POINTS_PER.mm,
  cm: POINTS_PER.mm,
  in: 72 / 16,
  'in-decimal': 7.2,
  pt: 1,
  pica: 1,
};

/** Converts millimetres to points. */
export const mm = (value: number): number => value * POINTS_PER.mm;

/** Converts inches to points. */
export const inch = (value: number): number => value * POINTS_PER.in;
