import { bounds, heightOf, widthOf, type Size } from '../measure/box';
import { mm } from '../measure/unit';
import { entryAt, firstOf, both } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

export type Point = readonly [x: number, y: number];
/** A path that a tool follows: its corners in points, y up, curves as short chords. A closed one goes back to its first. */
export interface CutPath {
  points: readonly Point[];
  closed: boolean;
}

/** The ends of chords of a cubic Bézier curve, without its beginning. */
export function chordsOf(from: Point, one: Point, two: Point, to: Point): Point[] {
  const bend = (a: Point, b: Point, c: Point) => Math.hypot(a[0] - 2 * b[0] + c[0], a[1] - 2 * b[1] + c[1]);
  // The second derivative is at most 6 × the larger bend; a chord over 1/n of the way is off by at most an eighth of it / n².
  const most = 6 * Math.max(bend(from, one, two), bend(one, two, to));
  const count = Math.min(1000, Math.max(1, Math.ceil(Math.sqrt(most / (8 * TOLERANCES.chord)))));
  return Array.from({ length: count }, (_, n): Point => {
    const t = (n + 1) / count;
    const [a, b, c, d] = [(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3];
    return [
      a * from[0] + b * one[0] + c * two[0] + d * to[0],
      a * from[1] + b * one[1] + c * two[1] + d * to[1],
    ];
  });
}

type Segment = readonly [Point, Point];
const segmentsOf = ({ points, closed }: CutPath): Segment[] => {
  const ends = closed && points.length > 1 ? [...points, firstOf(points)] : points;
  return ends.slice(1).flatMap((to, n): Segment[] => {
    const from = entryAt(ends, n);
    return from[0] === to[0] && from[1] === to[1] ? [] : [[from, to]];
  });
};

/** How far a tool goes that follows the paths, in points. */
export const cutLength = (paths: readonly CutPath[]): number =>
  paths.flatMap(segmentsOf).reduce((sum, [[x0, y0], [x1, y1]]) => sum + Math.hypot(x1 - x0, y1 - y0), 0);

/**
 * How many pieces come loose: areas that cuts enclose, whether one path closes around them or several meet. By Euler's
 * formula for plane graphs: edges − corners + connected parts.
 */
export function cutPieces(paths: readonly CutPath[]): number {
  const segments = paths.flatMap(segmentsOf);
  const places = new Places();
  const splits = segments.map(([from, to]) => [
    { t: 0, place: places.of(from) },
    { t: 1, place: places.of(to) },
  ]);
  const put = (n: number, t: number, at: Point) => entryAt(splits, n).push({ t, place: places.of(at) });
  for (const [n, m] of neighbours(segments))
    meet(entryAt(segments, n), entryAt(segments, m), put.bind(null, n), put.bind(null, m));
  const edges = new Set<string>();
  const leader = new Map<number, number>();
  const lead = (place: number): number => {
    const up = leader.get(place) ?? place;
    if (up === place) return place;
    const top = lead(up);
    leader.set(place, top);
    return top;
  };
  const corners = new Set<number>();
  for (const along of splits) {
    along.sort((a, b) => a.t - b.t);
    along.slice(1).forEach(({ place: to }, k) => {
      const from = entryAt(along, k).place;
      if (from === to) return;
      edges.add(from < to ? `${from} ${to}` : `${to} ${from}`);
      corners.add(from).add(to);
      leader.set(lead(from), lead(to));
    });
  }
  const parts = new Set([...corners].map(lead)).size;
  return edges.size - corners.size + parts;
}

/** Numbers places; two that are the same have one number. */
class Places {
  private readonly cells = new Map<string, number[]>();
  private readonly points: Point[] = [];

  of(point: Point): number {
    const [i, j] = both(point, (value) => Math.floor(value / TOLERANCES.written));
    for (let di = -1; di <= 1; di++)
      for (let dj = -1; dj <= 1; dj++)
        for (const known of this.cells.get(`${i + di} ${j + dj}`) ?? []) {
          const [x, y] = entryAt(this.points, known);
          if (Math.hypot(x - point[0], y - point[1]) <= TOLERANCES.written) return known;
        }
    const cell = this.cells.get(`${i} ${j}`) ?? [];
    cell.push(this.points.push(point) - 1);
    this.cells.set(`${i} ${j}`, cell);
    return this.points.length - 1;
  }
}

/** Cells of the net over all segments, across and up. */
const NET = 128;

/** Pairs of segments that come near each other, by their indexes, each once. */
function* neighbours(segments: readonly Segment[]): Generator<[number, number]> {
  const boxes = segments.map(([[ax, ay], [bx, by]]) => ({
    x0: Math.min(ax, bx) - TOLERANCES.written,
    x1: Math.max(ax, bx) + TOLERANCES.written,
    y0: Math.min(ay, by) - TOLERANCES.written,
    y1: Math.max(ay, by) + TOLERANCES.written,
  }));
  const all = bounds(boxes);
  const cell = Math.max(widthOf(all) / NET, heightOf(all) / NET, 1);
  const net = new Map<number, number[]>();
  const at = (value: number, from: number) => Math.floor((value - from) / cell);
  for (const [n, { x0, x1, y0, y1 }] of boxes.entries()) {
    const near = new Set<number>();
    for (let i = at(x0, all.x0); i <= at(x1, all.x0); i++)
      for (let j = at(y0, all.y0); j <= at(y1, all.y0); j++) {
        const key = i * 2 * NET + j;
        const here = net.get(key) ?? [];
        for (const m of here) near.add(m);
        here.push(n);
        net.set(key, here);
      }
    for (const m of near) yield [m, n];
  }
}

/** Says where two segments meet: at a crossing, or where an end of one lies on the other. */
function meet(
  [a, b]: Segment,
  [c, d]: Segment,
  onFirst: (t: number, at: Point) => void,
  onSecond: (t: number, at: Point) => void,
): void {
  for (const end of [c, d]) onto(end, a, b, onFirst);
  for (const end of [a, b]) onto(end, c, d, onSecond);
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  const across = ux * vy - uy * vx;
  if (Math.abs(across) < 1e-12 * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return;
  const t = ((c[0] - a[0]) * vy - (c[1] - a[1]) * vx) / across;
  const s = ((c[0] - a[0]) * uy - (c[1] - a[1]) * ux) / across;
  if (t < 0 || t > 1 || s < 0 || s > 1) return;
  const point: Point = [a[0] + t * ux, a[1] + t * uy];
  onFirst(t, point);
  onSecond(s, point);
}

function onto(end: Point, a: Point, b: Point, on: (t: number, at: Point) => void): void {
  const [ux, uy] = [b[0] - a[0], b[1] - a[1]];
  const t = ((end[0] - a[0]) * ux + (end[1] - a[1]) * uy) / (ux * ux + uy * uy);
  if (t <= 0 || t >= 1) return;
  if (Math.hypot(a[0] + t * ux - end[0], a[1] + t * uy - end[1]) <= TOLERANCES.written) on(t, end);
}

const inMm = (points: number): string => String(Number((points / mm(1)).toFixed(4)));

/**
 * The paths as a drawing in real size (SVG, millimetres), seen from the front, on a page of `size` points; `beneath` is a
 * picture of the whole page (a data URL) that they are drawn over, so that a path beside its art is seen.
 */
export function cutSvg(paths: readonly CutPath[], { width, height }: Size, beneath?: string): string {
  const art = beneath
    ? `<image width="${inMm(width)}" height="${inMm(height)}" preserveAspectRatio="none" opacity="0.6" href="${beneath}"/>\n`
    : '';
  const drawn = paths.map(
    ({ points, closed }) =>
      points.map(([x, y], n) => `${n ? 'L' : 'M'}${inMm(x)} ${inMm(height - y)}`).join('') +
      (closed ? 'Z' : ''),
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${inMm(width)}mm" height="${inMm(height)}mm" viewBox="0 0 ${inMm(width)} ${inMm(height)}">
${art}<path d="${drawn.join('')}" fill="none" stroke="#d81b60" vector-effect="non-scaling-stroke"/>
</svg>
`;
}
