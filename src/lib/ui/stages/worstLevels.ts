import type { Finding } from '../../core/checks';
import type { Level } from '../../core/checks/finding';

const RANK: Readonly<Record<Level, number>> = { note: 0, look: 1, stop: 2 };

/** How grave the worst finding on each page is, by its id; notes, and what holds for all pages, mark none. */
export function worstLevels(findings: readonly Finding[], count: number): ReadonlyMap<string, Level> {
  const worst = new Map<string, Level>();
  for (const { level, pages } of findings) {
    if (level === 'note' || pages.length === count) continue;
    for (const id of pages) {
      const known = worst.get(id);
      if (!known || RANK[level] > RANK[known]) worst.set(id, level);
    }
  }
  return worst;
}
