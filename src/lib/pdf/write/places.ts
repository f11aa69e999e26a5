import { isSameMatrix, type Matrix } from '../../core/measure/matrix';

const THOUSANDTHS = 1000;

/** Says of each thing that is drawn, by its key, at which place that is; undefined if it is the one where it was drawn first. */
export function placesApart<Key>(): (key: Key, matrix: Matrix) => string | undefined {
  const firstAt = new Map<Key, Matrix>();
  const placeOf = (matrix: Matrix) => matrix.map((n) => Math.round(n * THOUSANDTHS)).join();
  return (key, matrix) => {
    const first = firstAt.get(key);
    if (!first) firstAt.set(key, matrix);
    if (!first || isSameMatrix(first, matrix)) return undefined;
    const place = placeOf(matrix);
    return place === placeOf(first) ? undefined : place;
  };
}
