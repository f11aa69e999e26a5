import * as z from 'zod';
import { pageLength } from '../measure/lengthSchema';
import { mm } from '../measure/unit';
import { edgesOf, type BorderFold } from './fold';

/** How a sheet is divided, and folded from border to border. `columns` and `rows` are the shares that panels have of it. */
export interface Pattern {
  columns: readonly number[];
  rows: readonly number[];
  folds: readonly BorderFold[];
}

const count = (min: number, max: number) => z.number().int().min(min).max(max);
const foldSchema = z.object({
  axis: z.enum(['vertical', 'horizontal']),
  border: count(1, 15),
  moves: z.enum(['before', 'after']),
  goes: z.enum(['over', 'under']),
  layers: count(1, 64).optional(),
});

/** Panels of own folds across, and up. */
export const MOST_PANELS = 16;

/** The preparer's own folds: panels by their widths and heights, and the folds one after another. */
export const ownPatternSchema = z.object({
  fold: z.literal('own'),
  name: z.string().trim().min(1).max(60),
  columns: z.array(pageLength).min(1).max(MOST_PANELS),
  rows: z.array(pageLength).min(1).max(MOST_PANELS),
  folds: z.array(foldSchema).max(30),
});
export type OwnPattern = z.infer<typeof ownPatternSchema>;

/** A usual fold by its name, or the preparer's own, drawn on the sheet. The front of the sheet is the outside of the folded piece. */
export const patternSchema = z.discriminatedUnion('fold', [
  z.object({ fold: z.enum(['half', 'letter', 'gate', 'closed-gate', 'double-parallel', 'french']) }),
  z.object({ fold: z.literal('accordion'), panels: count(3, 16) }),
  z.object({ fold: z.literal('roll'), panels: count(3, 8) }),
  z.object({ fold: z.literal('right-angle'), pages: z.union([z.literal(8), z.literal(16), z.literal(32)]) }),
  z.object({ fold: z.literal('map'), columns: count(2, 16), rows: count(2, 4) }),
  ownPatternSchema,
]);
export type PatternChoice = z.infer<typeof patternSchema>;
export type FoldName = PatternChoice['fold'];

const vertical = (border: number, moves: BorderFold['moves']): BorderFold => ({
  axis: 'vertical',
  border,
  moves,
  goes: 'under',
});
const horizontal = (border: number, moves: BorderFold['moves']): BorderFold => ({
  ...vertical(border, moves),
  axis: 'horizontal',
});
const shares = (n: number): number[] => Array<number>(n).fill(1);

/** To and fro: what is left of the sheet goes under the panel before it, once from each side. */
const zigzag = (panels: number, fold: typeof vertical): BorderFold[] =>
  Array.from({ length: panels - 1 }, (_, n) => fold(panels - 1 - n, n % 2 ? 'after' : 'before'));

/** The folds of a pattern. */
export function patternOf(choice: PatternChoice): Pattern {
  const row = [1];
  switch (choice.fold) {
    case 'half':
      return { columns: shares(2), rows: row, folds: [vertical(1, 'before')] };
    case 'letter':
      return patternOf({ fold: 'roll', panels: 3 });
    // Rolled in from the left: each panel goes under the next, the last is the cover.
    case 'roll':
      return {
        columns: shares(choice.panels),
        rows: row,
        folds: Array.from({ length: choice.panels - 1 }, (_, n) => vertical(n + 1, 'before')),
      };
    case 'accordion':
      return { columns: shares(choice.panels), rows: row, folds: zigzag(choice.panels, vertical) };
    case 'gate':
      return { columns: [1, 2, 1], rows: row, folds: [vertical(1, 'before'), vertical(2, 'after')] };
    case 'closed-gate':
      return {
        columns: shares(4),
        rows: row,
        folds: [vertical(1, 'before'), vertical(3, 'after'), vertical(2, 'before')],
      };
    case 'double-parallel':
      return { columns: shares(4), rows: row, folds: [vertical(2, 'before'), vertical(3, 'before')] };
    case 'french':
      return { columns: shares(2), rows: shares(2), folds: [horizontal(1, 'after'), vertical(1, 'before')] };
    case 'map':
      return {
        columns: shares(choice.columns),
        rows: shares(choice.rows),
        folds: [...zigzag(choice.columns, vertical), ...zigzag(choice.rows, horizontal)],
      };
    case 'right-angle':
      return signaturePattern(choice.pages, 'left');
    case 'own':
      return choice;
  }
}

/** A usual fold as it begins; own ones begin as the fold that is there, with its panels. */
export function freshPattern(
  fold: FoldName,
  from: PatternChoice,
  panels?: Pick<Pattern, 'columns' | 'rows'>,
): PatternChoice {
  switch (fold) {
    case 'accordion':
    case 'roll':
      return { fold, panels: 4 };
    case 'map':
      return { fold, columns: 4, rows: 2 };
    case 'right-angle':
      return { fold, pages: 8 };
    case 'own': {
      const { columns, rows, folds } = patternOf(from);
      const lengths = panels ?? { columns, rows };
      return { fold, name: 'own', columns: [...lengths.columns], rows: [...lengths.rows], folds: [...folds] };
    }
    default:
      return { fold };
  }
}

/** A fold drawn this near to a border, in points, is at the border. */
const AT_BORDER = mm(0.5);

/**
 * Own folds with one more, at a place from the left or from the foot: a border that is there is folded, else the panel is
 * parted and borders behind it count one more. The smaller part goes under.
 */
export function withFoldAt(pattern: OwnPattern, axis: BorderFold['axis'], at: number): OwnPattern {
  const key = axis === 'vertical' ? 'columns' : 'rows';
  const edges = edgesOf(pattern[key]);
  const whole = edges.at(-1)!;
  const near = edges.findIndex((edge) => Math.abs(edge - at) < AT_BORDER);
  const border = near > 0 ? near : edges.findIndex((edge) => edge > at);
  const fold: BorderFold = { axis, border, moves: at <= whole / 2 ? 'before' : 'after', goes: 'under' };
  if (near === 0 || near === edges.length - 1 || border < 1) return pattern;
  if (near > 0) return { ...pattern, folds: [...pattern.folds, fold] };
  const parted = edges.toSpliced(border, 0, at);
  return {
    ...pattern,
    [key]: parted.slice(1).map((edge, n) => edge - parted[n]!),
    folds: [
      ...pattern.folds.map((each) =>
        each.axis === axis && each.border >= border ? { ...each, border: each.border + 1 } : each,
      ),
      fold,
    ],
  };
}

/** Own folds with so many columns or rows: new ones are as the last, and folds at borders that are gone are left out. */
export function withPanels(pattern: OwnPattern, key: 'columns' | 'rows', count: number): OwnPattern {
  const axis = key === 'columns' ? 'vertical' : 'horizontal';
  const lengths = pattern[key];
  return {
    ...pattern,
    [key]: Array.from({ length: count }, (_, n) => lengths[n] ?? lengths.at(-1)!),
    folds: pattern.folds.filter((fold) => fold.axis !== axis || fold.border < count),
  };
}

/** A pattern on its sheet turned clockwise by a quarter. */
export function turnedPattern({ columns, rows, folds }: Pattern): Pattern {
  return {
    columns: rows,
    rows: [...columns].reverse(),
    folds: folds.map((fold): BorderFold =>
      fold.axis === 'horizontal'
        ? { ...fold, axis: 'vertical' }
        : {
            ...fold,
            axis: 'horizontal',
            border: columns.length - fold.border,
            moves: fold.moves === 'before' ? 'after' : 'before',
          },
    ),
  };
}

export const SIGNATURE_PAGES = [4, 8, 16, 32] as const;
export type SignaturePages = (typeof SIGNATURE_PAGES)[number];

/**
 * A signature folded at right angles, each fold halving the piece and the last one at the spine: the left half under for a
 * spine at the left, the right half for one at the right; bound at the head, the same turned by a quarter, so that the
 * upper half goes under. Borders are counted on the sheet lying with its page 1 in front, head up.
 */
export function signaturePattern(pages: SignaturePages, spine: 'left' | 'right' | 'head'): Pattern {
  const halvings = Math.log2(pages / 2);
  const along = spine === 'head' ? 'horizontal' : 'vertical';
  const across = along === 'vertical' ? 'horizontal' : 'vertical';
  const towards = spine === 'left' ? 'before' : 'after';
  const counts = { vertical: 1, horizontal: 1 };
  const axes = Array.from({ length: halvings }, (_, n) => ((halvings - n) % 2 ? along : across));
  for (const axis of axes) counts[axis] *= 2;
  // What stays uppermost is the half of the run that page 1 lies in: at the far end from where halves move.
  const left = { vertical: [0, counts.vertical], horizontal: [0, counts.horizontal] };
  const folds = axes.map((axis): BorderFold => {
    const [from, to] = left[axis] as [number, number];
    const border = (from + to) / 2;
    const moves = axis === along ? towards : spine === 'head' ? 'before' : 'after';
    left[axis] = moves === 'before' ? [border, to] : [from, border];
    return { axis, border, moves, goes: 'under' };
  });
  return { columns: shares(counts.vertical), rows: shares(counts.horizontal), folds };
}
