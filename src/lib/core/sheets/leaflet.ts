import { creasesOf } from '../fold/creases';
import { edgesOf, foldStates, FoldError, type FlatSheet } from '../fold/fold';
import { patternOf, type Pattern } from '../fold/patterns';
import { panelWidths, type WorkedWidth } from '../fold/widths';
import type { PageList } from '../model/page';
import { commonestSize } from '../pages/sizes';
import { caliperOf } from '../paper/stock';
import { plannedPages } from './leafStrip';
import { backTurn, OPEN, type FoldLine, type Forme } from './forme';
import { gridForme, type Between } from './grid';
import { planForms } from './press';
import { NO_JOB, type PlannedPage, type SheetPlan } from './plan';
import type { Leaflet } from './settings/leaflet';
import { lastOf } from '../entries';

/** A leaflet's sheet: how wide and high its panels are, and its folds. */
export interface LeafletSheet extends FlatSheet {
  pattern: Pattern;
  /** Its inside is met by turning it head over foot, as the leaves of a book bound at the head are. */
  upward: boolean;
  /** The widths that the fold asks for, with their working. */
  worked: readonly WorkedWidth[];
}

/** How many pages one leaflet takes: its two sides, or the fronts and backs of all its panels. */
export const pagesPerLeaflet = ({ pattern, pages }: Pick<Leaflet, 'pattern' | 'pages'>): number => {
  if (pages === 'sides') return 2;
  const { columns, rows } = patternOf(pattern);
  return 2 * columns.length * rows.length;
};

/** The pages of a leaflet, those of its outside first. */
export function fromOutside<T>(
  pages: readonly T[],
  scheme: Pick<Leaflet, 'pattern' | 'pages' | 'first'>,
): T[] {
  const half = pagesPerLeaflet(scheme) / 2;
  return scheme.first === 'inside' ? [...pages.slice(half), ...pages.slice(0, half)] : [...pages];
}

/** The panels of the leaflet that begins at a page: as its pages have them, as typed, or as the fold asks. */
export function leafletSheet(list: PageList, scheme: Leaflet, first = 0): LeafletSheet | undefined {
  const pattern = patternOf(scheme.pattern);
  const [across, up] = [pattern.columns.length, pattern.rows.length];
  const pages = fromOutside(list.pages.slice(first, first + pagesPerLeaflet(scheme)), scheme);
  const [page] = pages;
  if (!page) return undefined;
  const byPanel = scheme.pages === 'panels';
  // Panels of the front are given from the left, rows from the head.
  const columns = Array.from({ length: across }, (_, n) => pages[n]?.trim.width ?? page.trim.width);
  const rows = Array.from(
    { length: up },
    (_, n) => pages[(up - 1 - n) * across]?.trim.height ?? page.trim.height,
  );
  const sum = (lengths: readonly number[]) => lengths.reduce((all, each) => all + each, 0);
  const size = byPanel ? { width: sum(columns), height: sum(rows) } : page.trim;
  const paper = { allowance: scheme.allowance, caliper: caliperOf(scheme.stock) ?? 0 };
  const worked = panelWidths(pattern, 'vertical', size.width, paper);
  const heights = panelWidths(pattern, 'horizontal', size.height, paper);
  const own = scheme.pattern.fold === 'own' ? scheme.pattern : undefined;
  const upward = list.book.spine === 'head';
  if (byPanel) return { columns, rows, pattern, upward, worked };
  const typed = scheme.widths?.length === across ? scheme.widths : own?.columns;
  return {
    columns: typed ? fitted(typed, size.width) : worked.map(({ width }) => width),
    rows: own ? fitted(own.rows, size.height) : heights.map(({ width }) => width),
    pattern,
    upward,
    worked,
  };
}

/** Lengths that make up a whole: the last takes what the others leave, unless they are more than there is. */
function fitted(lengths: readonly number[], whole: number): number[] {
  const before = lengths.slice(0, -1).reduce((all, each) => all + each, 0);
  if (before < whole) return [...lengths.slice(0, -1), whole - before];
  const all = before + lastOf(lengths);
  return lengths.map((length) => (length * whole) / all);
}

/** What keeps a leaflet from being folded, if anything. */
export function foldTrouble({ columns, rows, pattern }: LeafletSheet): FoldError | undefined {
  try {
    foldStates({ columns, rows }, pattern.folds);
    return undefined;
  } catch (error) {
    if (error instanceof FoldError) return error;
    throw error;
  }
}

/** Plans folded leaflets, a sheet for each. Undefined for an empty list. */
export function planLeaflet(list: PageList, scheme: Leaflet, job = NO_JOB): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const pages = plannedPages(list);
  const each = pagesPerLeaflet(scheme);
  const formes = Array.from({ length: Math.ceil(pages.length / each) }, (_, n) =>
    leafletForm(
      leafletSheet(list, scheme, n * each)!,
      fromOutside(pages.slice(n * each, (n + 1) * each), scheme),
      scheme,
    ),
  );
  return planForms({ formes, pages, cell, blanksAdded: 0, job }, scheme);
}

function leafletForm(sheet: LeafletSheet, pages: readonly PlannedPage[], scheme: Leaflet): Forme {
  const [xs, ys] = [edgesOf(sheet.columns), edgesOf(sheet.rows)];
  const size = { width: lastOf(xs), height: lastOf(ys) };
  const open = { left: OPEN, right: OPEN, head: OPEN, foot: OPEN };
  const { columns, rows, pattern } = sheet;
  const foldings = foldTrouble(sheet)
    ? []
    : [{ pattern: { columns, rows, folds: pattern.folds }, cutFirst: true }];
  const face = (planned: PlannedPage | undefined, side: 'front' | 'back') =>
    planned ? { [side]: { planned, turn: side === 'back' ? backTurn(planned.side) : (0 as const) } } : {};
  if (scheme.pages === 'sides')
    return {
      size,
      slots: [
        {
          box: { x0: 0, y0: 0, x1: size.width, y1: size.height },
          room: open,
          centred: true,
          ...face(pages[0], 'front'),
          ...face(pages[1], 'back'),
        },
      ],
      folds: foldLines(sheet),
      foldings,
    };
  const joint: Between = { gap: 0, cut: false, folded: true };
  const forme = gridForme({
    columns: sheet.columns,
    rows: sheet.rows,
    betweenColumns: sheet.columns.slice(1).map(() => joint),
    betweenRows: sheet.rows.slice(1).map(() => joint),
    at: (column, row) => {
      const lies = ({ on }: { on: 'outside' | 'inside' }) =>
        pages.find((_, n) => {
          const at = panelAt(n, sheet);
          return at.on === on && at.column === column && at.row === row;
        });
      return {
        ...face(lies({ on: 'outside' }), 'front'),
        ...face(lies({ on: 'inside' }), 'back'),
        centred: true,
      };
    },
  });
  return { ...forme, folds: foldLines(sheet), foldings };
}

/** Where the page at an index lies, pages being panels and those of the outside first: each side from its own left, rows from the head. */
export function panelAt(
  index: number,
  { columns, rows, upward }: FlatSheet & Pick<LeafletSheet, 'upward'>,
): { on: 'outside' | 'inside'; column: number; row: number } {
  const side = columns.length * rows.length;
  const n = index % side;
  const [line, step] = [Math.floor(n / columns.length), n % columns.length];
  const on = index < side ? 'outside' : 'inside';
  const place = { on, column: step, row: rows.length - 1 - line } as const;
  if (on === 'outside') return place;
  // The left of the inside lies behind the right of the outside; turned head over foot, its head lies behind the foot.
  return upward ? { ...place, row: line } : { ...place, column: columns.length - 1 - step };
}

/** The folds of a leaflet where they lie on the flat sheet; where it cannot be folded, the borders that were to be. */
export function foldLines(sheet: LeafletSheet): FoldLine[] {
  const { pattern } = sheet;
  const state = foldTrouble(sheet) ? undefined : lastOf(foldStates(sheet, pattern.folds));
  if (state) {
    const lines = creasesOf(sheet, state).map(({ axis, at, from, to, way }): FoldLine => ({
      axis,
      at,
      from,
      to,
      way,
    }));
    return joinedUp(lines);
  }
  const places = { vertical: edgesOf(sheet.columns), horizontal: edgesOf(sheet.rows) };
  const whole = { vertical: lastOf(places.horizontal), horizontal: lastOf(places.vertical) };
  return pattern.folds.map(({ axis, border }) => ({
    axis,
    at: places[axis][border] ?? 0,
    from: 0,
    to: whole[axis],
  }));
}

/** Folds of one kind that go on in one line, as one. */
function joinedUp(lines: readonly FoldLine[]): FoldLine[] {
  const sorted = [...lines].sort((a, b) => a.axis.localeCompare(b.axis) || a.at - b.at || a.from - b.from);
  return sorted.reduce<FoldLine[]>((done, line) => {
    const last = done.at(-1);
    if (
      last &&
      last.axis === line.axis &&
      last.at === line.at &&
      last.way === line.way &&
      last.to === line.from
    )
      done[done.length - 1] = { ...last, to: line.to };
    else done.push(line);
    return done;
  }, []);
}
