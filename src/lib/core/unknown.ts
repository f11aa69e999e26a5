/* Looking at what comes from outside, whose type nobody knows. */

/** Whether something unknown is an object with named fields. */
export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The code that an error carries, as those of the system and of PostgreSQL do. */
export const codeOf = (error: unknown): unknown => (isRecord(error) ? error.code : undefined);
