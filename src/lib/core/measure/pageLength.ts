import * as z from 'zod';

/** Most points that PDF readers promise to take for a page: 200 in (ISO 32000-1, annex C.2). */
export const MOST_POINTS = 14_400;

/** A length of paper in points: positive, at most MOST_POINTS. */
export const pageLength = z.number().positive().max(MOST_POINTS);
