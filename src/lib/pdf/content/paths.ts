import { firstOf, lastOf } from '../../core/entries';
import { chordsOf, type Point } from '../../core/handover/cutting';
import { applyToPoint, type Matrix } from '../../core/measure/matrix';
import { type Operation } from './operations';

/** A path as it is drawn, curves as short chords. */
export interface Subpath {
  points: Point[];
  closed: boolean;
}

type Draw = (paths: PathBuilder, numbers: readonly number[], matrix: Matrix) => void;

/** The operators that make up paths (ISO 32000-1, 8.5.2), and `n`, which ends one without painting it. */
const DRAWS: ReadonlyMap<string, Draw> = new Map(
  Object.entries<Draw>({
    m: (paths, n, matrix) => pointsOf(n, matrix, 1, (at) => paths.begin(at)),
    l: (paths, n, matrix) => pointsOf(n, matrix, 1, (at) => paths.lineTo(at)),
    c: (paths, n, matrix) => pointsOf(n, matrix, 3, (one, two, end) => paths.curveTo(one, two, end)),
    v: (paths, n, matrix) => pointsOf(n, matrix, 2, (two, end) => paths.curveTo(undefined, two, end)),
    y: (paths, n, matrix) => pointsOf(n, matrix, 2, (one, end) => paths.curveTo(one, end, end)),
    h: (paths) => paths.close(),
    re: (paths, [x = 0, y = 0, width = 0, height = 0], matrix) =>
      paths.rectangle(
        [
          [x, y],
          [x + width, y],
          [x + width, y + height],
          [x, y + height],
        ],
        matrix,
      ),
    n: (paths) => void paths.take(),
  }),
);

export const PATH_OPERATORS: readonly string[] = [...DRAWS.keys()];

/** The points that operands name, moved; nothing is drawn if there are too few of them. */
function pointsOf(
  numbers: readonly number[],
  matrix: Matrix,
  count: number,
  draw: (...points: [Point, Point, Point]) => void,
): void {
  if (numbers.length < 2 * count) return;
  const at = (k: number): Point => moved([numbers[2 * k] ?? 0, numbers[2 * k + 1] ?? 0], matrix);
  draw(at(0), at(1), at(2));
}

const moved = ([x, y]: Point, matrix: Matrix): Point => {
  const point = applyToPoint(matrix, x, y);
  return [point.x, point.y];
};

/** The current path, operation by operation. */
export class PathBuilder {
  private paths: Subpath[] = [];

  /** Carries out an operation that makes up a path. */
  add({ operator, operands }: Operation, matrix: Matrix): void {
    DRAWS.get(operator)?.(this, operands.map(Number), matrix);
  }

  /** The paths so far; the next one begins anew. */
  take(): readonly Subpath[] {
    const all = this.paths;
    this.paths = [];
    return all;
  }

  close(): void {
    const open = this.paths.at(-1);
    if (open) open.closed = true;
  }

  begin(at: Point): void {
    this.paths.push({ points: [at], closed: false });
  }

  lineTo(at: Point): void {
    this.going()?.points.push(at);
  }

  /** A cubic curve; without a first control point, that is where the path stands. */
  curveTo(one: Point | undefined, two: Point, end: Point): void {
    const path = this.going();
    if (!path) return;
    const from = lastOf(path.points);
    path.points.push(...chordsOf(from, one ?? from, two, end));
  }

  rectangle(corners: readonly Point[], matrix: Matrix): void {
    this.paths.push({ points: corners.map((corner) => moved(corner, matrix)), closed: true });
  }

  /** The path that goes on: after one was closed, from where it began. */
  private going(): Subpath | undefined {
    const last = this.paths.at(-1);
    if (last?.closed) this.begin(firstOf(last.points));
    return this.paths.at(-1);
  }
}
