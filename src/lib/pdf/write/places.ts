import type { Matrix } from '../../core/measure/matrix';

const THOUSANDTHS = 1000;

/** Says of each thing that is drawn, by its key, at which place that is; undefined if it is the one where it was drawn first. */
export function placesApart<Key>(): (key: Key, matrix: Matrix) => string | undefined {
  const firstAt = new Map<Key, string>();
  return (key, matrix) => {
    const place = matrix.map((n) => Math.round(n * THOUSANDTHS)).join();
    const first = firstAt.get(key) ?? place;
    firstAt.set(key, first);
    return place === first ? undefined : place;
  };
}
