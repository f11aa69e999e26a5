/**
 * Which bytes of a file of so many are asked for, up to and without the last, as a Range header says (RFC 9110, 14.2); undefined
 * for all of them, also where several ranges are asked for or the header is not understood; `none` where there are none there.
 */
export function partOf(
  range: string | null,
  size: number,
): { from: number; to: number } | undefined | 'none' {
  const [, first = '', last = ''] = /^bytes=(\d*)-(\d*)$/.exec(range ?? '') ?? [];
  if (!first && !last) return undefined;
  // Only a last one: so many from the end.
  const from = first ? Number(first) : Math.max(0, size - Number(last));
  const to = first && last ? Math.min(size, Number(last) + 1) : size;
  if (first && last && Number(last) < Number(first)) return undefined;
  if (from >= to) return 'none';
  return from || to < size ? { from, to } : undefined;
}
