import type { ZodType } from 'zod';

/** What a part of a docket says, as it comes back from being saved: in whatever order its fields were written, the same. */
export function asSaved(schema: ZodType, part: unknown): string {
  const read = schema.safeParse(part);
  return JSON.stringify(read.success ? read.data : part);
}
