import { entryAt } from '../entries';

/** The middle one of numbers, of an even count the mean of the two in the middle. Throws for none. */
export function median(numbers: readonly number[]): number {
  const sorted = [...numbers].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 ? entryAt(sorted, half) : (entryAt(sorted, half - 1) + entryAt(sorted, half)) / 2;
}
