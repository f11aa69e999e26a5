/** A piece of a line of text, or whatever hangs together like one, in dots; y runs down. */
export interface Mark {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** How many dots of it are ink. */
  ink: number;
}

/** Letters nearer to each other than this, in dots at 150 an inch, are of one piece. */
const GAP = 12;
/** Pieces with less ink than this are dirt. */
const DIRT = 8;

/** Pieces of lines in a picture that stands upright, 150 dots an inch; `ink` is a byte a dot. */
export function marksIn(ink: Uint8Array, width: number, height: number): Mark[] {
  const marks: Mark[] = [];
  const parents: number[] = [];
  const root = (n: number): number => {
    while (parents[n] !== n) n = parents[n] = parents[parents[n]!]!;
    return n;
  };
  type Run = { x0: number; x1: number; ink: number; mark: number };
  let above: Run[] = [];
  for (let y = 0; y < height; y++) {
    const runs: Run[] = [];
    let run: Run | undefined;
    for (let x = 0; x < width; x++) {
      if (!ink[y * width + x]) continue;
      if (!run || x - run.x1 > GAP)
        runs.push((run = { x0: x, x1: x, ink: 0, mark: marks.length + runs.length }));
      run.x1 = x + 1;
      run.ink++;
    }
    let n = 0;
    for (const each of runs) {
      while (n < above.length && above[n]!.x1 < each.x0) n++;
      parents.push(each.mark);
      marks.push({ x0: each.x0, x1: each.x1, y0: y, y1: y + 1, ink: each.ink });
      for (let m = n; m < above.length && above[m]!.x0 <= each.x1; m++)
        parents[root(each.mark)] = root(above[m]!.mark);
    }
    above = runs;
  }
  const found = new Map<number, Mark>();
  marks.forEach((mark, n) => {
    const key = root(n);
    const known = found.get(key);
    if (!known) found.set(key, { ...mark });
    else {
      known.x0 = Math.min(known.x0, mark.x0);
      known.x1 = Math.max(known.x1, mark.x1);
      known.y0 = Math.min(known.y0, mark.y0);
      known.y1 = Math.max(known.y1, mark.y1);
      known.ink += mark.ink;
    }
  });
  return [...found.values()].filter(({ ink: dots }) => dots >= DIRT);
}

/** How high letters are, in dots at 150 an inch: 3.5 to 29 points for a line, and up to 19 for a number. */
const [LOWEST, HIGHEST, HIGHEST_NUMBER] = [7, 60, 40];
/** A line to read words from is so many times as long as high; a number of four digits is not wider than this. */
const [LONG, WIDE] = [6, 3.4];

/** The longest lines of text, by which a reader knows how the page stands. */
export const linesAmong = (marks: readonly Mark[], most: number): Mark[] =>
  marks
    .filter(({ x0, x1, y0, y1 }) => {
      const high = y1 - y0;
      return high >= LOWEST && high <= HIGHEST && x1 - x0 >= LONG * high;
    })
    .sort((a, b) => b.x1 - b.x0 - (a.x1 - a.x0))
    .slice(0, most);

/** What stands alone as a number at the head or the foot does, the nearest to them first; `depth` is how far in they may stand. */
export function loneAmong(
  marks: readonly Mark[],
  paper: { y0: number; y1: number },
  depth: number,
  most: number,
): Mark[] {
  const inside = ({ y0, y1 }: Mark) => Math.min(y0 - paper.y0, paper.y1 - y1);
  return marks
    .filter((mark) => {
      const [wide, high] = [mark.x1 - mark.x0, mark.y1 - mark.y0];
      if (high < LOWEST || high > HIGHEST_NUMBER || wide > WIDE * high || wide < high / 6) return false;
      if (inside(mark) < 0 || inside(mark) + high / 2 > depth) return false;
      // Ink of a drawing or a shadow fills it, that of dirt hardly shows.
      const full = mark.ink / (wide * high);
      return full > 0.12 && full < 0.9 && marks.every((other) => other === mark || apart(mark, other, high));
    })
    .sort((a, b) => inside(a) - inside(b))
    .slice(0, most);
}

/** Whether two marks stand apart: dirt beside a number does not count, nor a rule over it. */
function apart(a: Mark, b: Mark, high: number): boolean {
  if (b.y1 - b.y0 < high * 0.4 && b.x1 - b.x0 < high * 0.4) return true;
  const [across, down] = [Math.max(b.x0 - a.x1, a.x0 - b.x1), Math.max(b.y0 - a.y1, a.y0 - b.y1)];
  if (b.y1 - b.y0 < high * 0.4) return across > 0 || down > 1;
  return across > 2 * high || down > 0.5 * high;
}
