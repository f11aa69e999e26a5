import * as z from 'zod';

/** Most points that PDF readers promise to take for a page: 200 in (ISO 32000-1, annex C.2). */
export const MOST_POINTS = 14_400;

/** Least points that they promise to take: 3 (the same annex). */
export const LEAST_POINTS = 3;

const POINTS = 'pt';
/** Says of a schema that its numbers are lengths in points; the published JSON Schema says so too. */
export const inPoints = (numbers: z.ZodNumber): z.ZodNumber => numbers.meta({ unit: POINTS });

/** A length in points, from the least to the most. */
export const lengthWithin = ([least, most]: readonly [number, number]) =>
  inPoints(z.number().min(least).max(most));
/** A length of paper in points. */
export const pageLength = lengthWithin([LEAST_POINTS, MOST_POINTS]);
/** A distance on a page or a sheet, in points. */
export const distance = lengthWithin([0, MOST_POINTS]);
/** A place on a page or a sheet as seen from another, in points. */
export const offset = lengthWithin([-MOST_POINTS, MOST_POINTS]);

/** Whether values of a schema are lengths in points. */
export const isLength = (schema: z.core.$ZodType): boolean => z.globalRegistry.get(schema)?.unit === POINTS;
