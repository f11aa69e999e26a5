import { sizeBox, type Box, type Size } from '../measure/box';
import { BLACK } from '../ink/colour';
import { faceFor } from '../numbers/faceMetrics';
import { markLine, type Item } from '../model/surface';
import type { Spine } from '../model/page';
import type { CutOperation, FoldOperation, OperationOf } from './operations';
import { followCuts } from './strips';

/** A small picture of an operation: what lies there, drawn as large as there is room for. */
export interface Drawing {
  size: Size;
  /** What it is drawn to the scale of, if not of itself: the first of several that are compared. */
  fit?: Size;
  /** It has much in it. */
  isLarge?: true;
  /** What is drawn, lengths in those of the paper; `scale` leads to points on the ticket, from the lower left corner. */
  items: (scale: number) => Item[];
  caption: string;
}

const [THIN, THICK] = [0.4, 1];
const DASHED = [3, 2];
/** Figures in drawings, in points on the ticket. */
const FIGURE = 6.5;

/** A straight black line. */
export const line = (
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  width = THIN,
  dash: readonly number[] = [],
): Item => markLine({ x0, y0, x1, y1 }, width, { ink: BLACK, dash });
/** The four sides of a box. */
export const frame = ({ x0, y0, x1, y1 }: Box, width = THIN): Item[] => [
  line(x0, y0, x1, y0, width),
  line(x1, y0, x1, y1, width),
  line(x1, y1, x0, y1, width),
  line(x0, y1, x0, y0, width),
];
const figure = (text: string, x: number, y: number, align: 'left' | 'centre' | 'right' = 'centre'): Item => ({
  kind: 'text',
  face: faceFor(text, 'regular') ?? 'Source Sans 3',
  weight: 'regular',
  size: FIGURE,
  text,
  ink: BLACK,
  align,
  matrix: [1, 0, 0, 1, x, y - FIGURE / 3],
});

/** A straight arrow, dashed if it goes under the paper. */
function arrow(x0: number, y0: number, x1: number, y1: number, under: boolean): Item[] {
  const length = Math.hypot(x1 - x0, y1 - y0) || 1;
  const [dx, dy] = [(x1 - x0) / length, (y1 - y0) / length];
  const head = Math.min(5, length / 2);
  const barb = (side: 1 | -1) =>
    line(x1, y1, x1 - head * dx + (side * head * dy) / 2, y1 - head * dy - (side * head * dx) / 2, THICK);
  return [line(x0, y0, x1, y1, THICK, under ? [2, 2] : []), barb(1), barb(-1)];
}

/** A fold: the piece as it lies, its line dashed, and an arrow from the part that moves to where it goes. */
export function drawFold(
  { piece, axis, at, moves, goes }: FoldOperation,
  fit: Size,
  caption: string,
): Drawing {
  return {
    size: piece,
    fit,
    caption,
    items: (scale) => {
      const [width, height, place] = [piece.width * scale, piece.height * scale, at * scale];
      const isAfter = moves === 'right' || moves === 'head';
      const whole = axis === 'vertical' ? width : height;
      const part = isAfter ? whole - place : place;
      const reach = Math.min(part * 0.6, 26) * (isAfter ? 1 : -1);
      const ends = [place + reach, place - reach * 0.8] as const;
      return [
        ...frame(sizeBox({ width, height }), 0.8),
        ...(axis === 'vertical'
          ? [
              line(place, 0, place, height, THICK, DASHED),
              ...arrow(ends[0], height / 2, ends[1], height / 2, goes === 'under'),
            ]
          : [
              line(0, place, width, place, THICK, DASHED),
              ...arrow(width / 2, ends[0], width / 2, ends[1], goes === 'under'),
            ]),
      ];
    },
  };
}

/** Cuts of a sheet by their numbers, and the pieces that come out by the piles that they go on. */
export function drawCuts(
  paper: Size,
  cuts: readonly CutOperation[],
  pieces: readonly OperationOf<'cut'>['pieces'][number][],
  caption: string,
): Drawing {
  const { papers, lines } = followCuts(paper, cuts);
  return {
    size: paper,
    isLarge: true,
    caption,
    items: (scale) => [
      ...frame({ x0: 0, y0: 0, x1: paper.width * scale, y1: paper.height * scale }, 0.8),
      ...lines.flatMap(({ axis, at, from, to, number }): Item[] =>
        axis === 'vertical'
          ? [
              line(at * scale, from * scale, at * scale, to * scale),
              figure(`${number}`, at * scale, to * scale - FIGURE / 1.6),
            ]
          : [
              line(from * scale, at * scale, to * scale, at * scale),
              figure(`${number}`, from * scale + 2, at * scale, 'left'),
            ],
      ),
      ...pieces.flatMap(({ strip, turn }): Item[] => {
        const box = papers.get(strip);
        if (!box) return [];
        const [x, y] = [((box.x0 + box.x1) / 2) * scale, ((box.y0 + box.y1) / 2) * scale];
        // An arrow to the head of what is printed there.
        const long = (Math.min(box.x1 - box.x0, box.y1 - box.y0) * scale) / 5;
        const [dx, dy] = { 0: [0, 1], 90: [-1, 0], 180: [0, -1], 270: [1, 0] }[turn] as [number, number];
        return arrow(x - dx * long, y - dy * long, x + dx * long, y + dy * long, false);
      }),
    ],
  };
}

/** A bound block with its three knives by their numbers, the spine drawn thick. */
export function drawTrim({ spine, size }: OperationOf<'trim'>, caption: string): Drawing {
  const off = Math.max(size.width, size.height) / 12;
  const block = {
    left: { x0: 0, x1: size.width + off, y0: 0, y1: size.height + 2 * off },
    right: { x0: 0, x1: size.width + off, y0: 0, y1: size.height + 2 * off },
    head: { x0: 0, x1: size.width + 2 * off, y0: 0, y1: size.height + off },
  }[spine];
  return {
    size: { width: block.x1, height: block.y1 },
    caption,
    items: (scale) => {
      const [w, h, o] = [block.x1 * scale, block.y1 * scale, off * scale];
      const spineLine = {
        left: line(0, 0, 0, h, 2.4),
        right: line(w, 0, w, h, 2.4),
        head: line(0, h, w, h, 2.4),
      }[spine];
      const knives: Item[] =
        spine === 'head'
          ? [
              line(0, o, w, o, THIN, DASHED),
              figure('1', w / 2, o / 2),
              line(o, 0, o, h, THIN, DASHED),
              figure('2', o / 2, h / 2),
              line(w - o, 0, w - o, h, THIN, DASHED),
              figure('3', w - o / 2, h / 2),
            ]
          : [
              line(spine === 'left' ? w - o : o, 0, spine === 'left' ? w - o : o, h, THIN, DASHED),
              figure('1', spine === 'left' ? w - o / 2 : o / 2, h / 2),
              line(0, h - o, w, h - o, THIN, DASHED),
              figure('2', w / 2, h - o / 2),
              line(0, o, w, o, THIN, DASHED),
              figure('3', w / 2, o / 2),
            ];
      return [...frame({ x0: 0, y0: 0, x1: w, y1: h }, 0.8), spineLine, ...knives];
    },
  };
}

/** A cover as it lies flat, outside up, with its creases. */
export function drawCover(
  { parts, creases, before, spine }: OperationOf<'cover'>,
  across: number,
  names: readonly string[],
  caption: string,
): Drawing {
  const along = before * 2 + parts.reduce((sum, { length }) => sum + length, 0);
  const size = isUpright(spine) ? { width: along, height: across } : { width: across, height: along };
  return {
    size,
    caption,
    items: (scale) => {
      const [w, h] = [size.width * scale, size.height * scale];
      let from = before;
      return [
        ...frame({ x0: 0, y0: 0, x1: w, y1: h }, 0.8),
        ...creases.map((crease) =>
          isUpright(spine)
            ? line(crease * scale, 0, crease * scale, h, THICK, DASHED)
            : line(0, crease * scale, w, crease * scale, THICK, DASHED),
        ),
        ...parts.flatMap(({ length }, n): Item[] => {
          const middle = (from + length / 2) * scale;
          from += length;
          if (length * scale < 14) return [];
          return [
            isUpright(spine) ? figure(names[n] ?? '', middle, h / 2) : figure(names[n] ?? '', w / 2, middle),
          ];
        }),
      ];
    },
  };
}

/** Lengths as bars one under another, each named, with a line at one length. */
export function drawBars(
  bars: readonly { name: string; length: number; said: string }[],
  limit: number,
  caption: string,
): Drawing {
  const [high, named, most] = [12, 130, Math.max(limit * 1.2, ...bars.map(({ length }) => length), 1)];
  const size = { width: 420, height: bars.length * high + 8 };
  return {
    size,
    isLarge: true,
    caption,
    items: (scale) => {
      const wide = (length: number) =>
        (named + (Math.min(length, most) / most) * (size.width - named - 60)) * scale;
      const foot = size.height * scale;
      return [
        ...bars.flatMap(({ name, length, said }, n): Item[] => {
          const y = foot - (n + 0.5) * high * scale;
          return [
            figure(name, (named - 6) * scale, y, 'right'),
            line(named * scale, y, wide(length), y, 5 * scale),
            figure(said, wide(length) + 4, y, 'left'),
          ];
        }),
        line(wide(limit), 0, wide(limit), foot, THIN, DASHED),
      ];
    },
  };
}

/** The spine is parallel to the lines of text's beginning: parts lie side by side. */
const isUpright = (spine: Spine): boolean => spine !== 'head';
