import * as z from 'zod';

/** How a numbered set counts: from `start` in steps of `by`, with as many digits at least, after a prefix. */
export const setShape = {
  start: z.number().int().min(0).max(999_999_999),
  by: z.number().int().min(-1_000_000).max(1_000_000),
  digits: z.number().int().min(1).max(12),
  prefix: z.string().max(40).optional(),
};
export type CountBy = z.infer<z.ZodObject<typeof setShape>>;

/** As a form begins it: 001, 002, 003. */
export const PLAIN_SET = { start: 1, by: 1, digits: 3 } as const satisfies CountBy;

/** The number of the nth (from 0) of a set: 000123. */
export function setNumber(nth: number, { start, by, digits, prefix = '' }: CountBy): string {
  const value = start + nth * by;
  return `${prefix}${value < 0 ? '-' : ''}${String(Math.abs(value)).padStart(digits, '0')}`;
}
