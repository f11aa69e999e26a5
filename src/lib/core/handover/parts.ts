import type { InkStep } from '../numbers/jobInks';
import type { PageList } from '../model/page';
import type { Surveys } from '../model/survey';
import type { SheetPlan } from '../sheets/plan';
import type { Scheme } from '../sheets/schemes';
import type { Split } from './split';

/** One file of an output. */
export interface Part {
  /** What tells it from the others: its number from 1, or the bookmark, series or piece that it holds. */
  name: string;
  /** The pages of the undivided file that it has, by their indexes from 0, in their order. */
  pages: readonly number[];
  /** The first and the last of them: page positions, or sheet numbers. */
  from: number;
  to: number;
  /** Parts by size: it alone is larger than was allowed. */
  over?: true;
  /** The last front has no back. */
  alone?: true;
}

/** What is asked of the steps of a job: what inks and layers they bring. */
export interface ToolStep extends InkStep {
  name?: string;
  layer?: string;
}

/** What an output is cut from. */
export interface Cuttable {
  docket: { scheme: Scheme; steps: readonly ToolStep[] };
  surveys: Surveys;
  list: PageList;
  plan: SheetPlan | undefined;
}

export type SplitProblemCode = 'no-bookmarks' | 'no-series' | 'no-pieces' | 'no-sheets' | 'no-template';
/** The sheets of a job. Throws SplitProblem if it has none. */
export function plannedOf({ plan }: Pick<Cuttable, 'plan'>): SheetPlan {
  if (!plan) throw new SplitProblem('no-sheets');
  return plan;
}

/** Why an output cannot be made, or not be split as asked. */
export class SplitProblem extends Error {
  constructor(readonly code: SplitProblemCode) {
    super(code);
  }
}

/** The numbers from 0 to below a count. */
export const range = (count: number): number[] => Array.from({ length: count }, (_, n) => n);

/** A part for each page. */
export const each = (pages: readonly number[], numberOf: (page: number) => number): Part[] =>
  pages.map((page, n) => ({ name: String(n + 1), pages: [page], from: numberOf(page), to: numberOf(page) }));

/** What tells one face from the other: what files of them are called, and which of an order are backs. */
interface Faces {
  names: readonly [fronts: string, backs: string];
  isBack: (page: number, n: number) => boolean;
}
const PAGE_FACES: Faces = { names: ['odd', 'even'], isBack: (_, n) => n % 2 === 1 };

/** Parts of a file whose pages come in an order. */
export function cut(
  order: readonly number[],
  split: Extract<Split, { by: 'every' | 'faces' | 'size' }> | undefined,
  numberOf: (page: number) => number,
  { names, isBack }: Faces = PAGE_FACES,
): Part[] {
  const part = (pages: readonly number[], name: string): Part => ({
    name,
    pages,
    from: Math.min(...pages.map(numberOf)),
    to: Math.max(...pages.map(numberOf)),
  });
  if (split?.by === 'faces') {
    const fronts = order.filter((page, n) => !isBack(page, n));
    const backs = order.filter(isBack);
    if (!backs.length) return [part(fronts, names[0])];
    return [
      { ...part(fronts, names[0]), ...(fronts.at(-1) === order.at(-1) ? { alone: true } : {}) },
      part(split.reverse ? backs.reverse() : backs, names[1]),
    ];
  }
  const count = split?.by === 'every' ? split.count : Math.max(1, order.length);
  return range(Math.ceil(order.length / count)).map((n) =>
    part(order.slice(n * count, (n + 1) * count), String(n + 1)),
  );
}
