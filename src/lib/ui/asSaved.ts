import type { ZodType } from 'zod';

/** A part of a docket as canonical JSON, the same whatever the order of its fields: what comes back after saving compares equal. */
export function asSaved(schema: ZodType, part: unknown): string {
  const read = schema.safeParse(part);
  return JSON.stringify(read.success ? read.data : part);
}
