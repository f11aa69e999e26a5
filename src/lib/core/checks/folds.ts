import type { FoldError } from '../fold/fold';
import { CENTRE } from '../pages/resize';
import { patternOf } from '../fold/patterns';
import { narrowedWidths, tightPanels, type TightPanel } from '../fold/widths';
import type { Size } from '../measure/box';
import { sameSize } from '../paper/sizes';
import { caliperOf } from '../paper/stock';
import type { PageList } from '../model/page';
import { foldTrouble, fromOutside, leafletSheet, pagesPerLeaflet, panelAt } from '../sheets/leaflet';
import { schemeKind, type Leaflet, type PressScheme } from '../sheets/schemes';
import type { Check, CheckKind, FindingOf, JobState } from './finding';
import { entryAt } from '../entries';
import type { StepDraft } from '../docket/steps';

/** What this family finds. */
type Found =
  | { code: 'caliper-unknown' }
  | { code: 'creep-over-safe'; wanted: number; done: number; leaves: number }
  | { code: 'across-grain' }
  | { code: 'panels-missing'; given: number; each: number }
  | { code: 'fold-impossible'; error: FoldError }
  | { code: 'fold-in-tight'; axis: 'vertical' | 'horizontal'; panel: number; room: number; wanted: number };
type Mends = 'creep-by-scale' | 'turn-work' | 'worked-widths';
type Finding = FindingOf<Found, Mends>;

/** Folds that paper cannot make, panels without room to fold in, creep that the safe margin ends, and folds across the grain. */
const checkFolds: Check<Found, Mends> = (state) => {
  const { docket, plan } = state;
  const { scheme } = docket;
  if (!plan || !('stock' in scheme)) return [];
  const findings = scheme.kind === 'leaflet' ? leafletFindings(state, scheme) : [];
  const at = { stage: 'sheets', pages: [] } as const;
  if ('creep' in scheme && scheme.creep) {
    if (scheme.creep.caliper === undefined && caliperOf(scheme.stock) === undefined)
      findings.push({ ...at, code: 'caliper-unknown', level: 'look' });
    const { wanted, done } = plan.creep?.at(-1) ?? { wanted: 0, done: 0 };
    if (wanted > done)
      findings.push({
        ...at,
        code: 'creep-over-safe',
        level: 'look',
        wanted,
        done,
        leaves: plan.creep!.filter((leaf) => leaf.wanted > leaf.done).length,
        mend: {
          code: 'creep-by-scale',
          scheme: { creep: { ...scheme.creep, by: 'scale' } },
        },
      });
  }
  const across = schemeKind(scheme.kind).makes !== 'cut' && foldsAcrossGrain(state, scheme);
  if (across)
    findings.push({
      ...at,
      code: 'across-grain',
      level: 'look',
      mend: { code: 'turn-work', scheme: { turned: (scheme.turned ?? 0) % 180 ? 0 : 90 } },
    });
  return findings;
};

/** Whether the last fold, at the spine, runs across the paper's grain. */
function foldsAcrossGrain({ plan, list }: JobState, scheme: PressScheme): boolean {
  const { stock, turned, kind } = scheme;
  if (!stock.grain || !plan) return false;
  const { width, height } = plan.sheet;
  const longIsUpright = height > width;
  const grainUpright = stock.grain === 'long' ? longIsUpright : !longIsUpright;
  const book = schemeKind(kind).makes === 'book';
  const lies =
    kind === 'leaflet'
      ? patternOf(scheme.pattern).folds.at(-1)?.axis === 'horizontal'
      : book && list.book.spine === 'head';
  const spineUpright = lies === ((turned ?? 0) % 180 === 90);
  return grainUpright !== spineUpright;
}

function leafletFindings({ list }: JobState, scheme: Leaflet): Finding[] {
  const sheet = leafletSheet(list, scheme);
  if (!sheet) return [];
  const each = pagesPerLeaflet(scheme);
  const at = { stage: 'sheets', pages: [] as string[] } as const;
  const findings: Finding[] = [];
  if (list.pages.length % each)
    findings.push({ ...at, code: 'panels-missing', level: 'look', given: list.pages.length, each });
  const mend = widthsMend({ list }, scheme);
  const error = foldTrouble(sheet);
  if (error)
    return [...findings, { ...at, code: 'fold-impossible', level: 'stop', error, ...(mend ? { mend } : {}) }];
  const paper = { allowance: scheme.allowance, caliper: caliperOf(scheme.stock) ?? 0 };
  // Each panel once, for what it is tightest in.
  const tight = new Map<string, TightPanel>();
  for (const each of tightPanels(sheet.pattern, sheet, paper)) {
    const key = `${each.axis} ${each.panel}`;
    const known = tight.get(key);
    if (!known || each.room - each.wanted < known.room - known.wanted) tight.set(key, each);
  }
  const pagesOf = ({ axis, panel }: TightPanel): string[] =>
    scheme.pages === 'sides'
      ? []
      : positionsOf(list, scheme, 0).flatMap((position, n) => {
          const { column, row } = panelAt(n, sheet);
          return (axis === 'vertical' ? column : row) === panel ? [entryAt(list.pages, position - 1).id] : [];
        });
  for (const each of tight.values()) {
    const { axis, panel, room, wanted } = each;
    findings.push({
      ...at,
      pages: pagesOf(each),
      code: 'fold-in-tight',
      level: room < wanted / 2 ? 'stop' : 'look',
      axis,
      // Columns are counted from the left, rows from the head.
      panel: axis === 'vertical' ? panel + 1 : sheet.rows.length - panel,
      room,
      wanted,
      ...(mend ? { mend } : {}),
    });
  }
  return findings;
}

/** The panels made as narrow as the fold asks for, the finished piece as large as it is: pages sized anew, or typed widths left out. */
function widthsMend({ list }: Pick<JobState, 'list'>, scheme: Leaflet): Finding['mend'] {
  if (scheme.pages === 'sides')
    return scheme.widths && { code: 'worked-widths', scheme: { widths: undefined } };
  const each = pagesPerLeaflet(scheme);
  const paper = { allowance: scheme.allowance, caliper: caliperOf(scheme.stock) ?? 0 };
  const steps: StepDraft[] = [];
  for (let first = 0; first < list.pages.length; first += each) {
    const sheet = leafletSheet(list, scheme, first)!;
    const columns = narrowedWidths(sheet.pattern, 'vertical', sheet.columns, paper);
    const rows = narrowedWidths(sheet.pattern, 'horizontal', sheet.rows, paper);
    const groups = new Map<string, { size: Size; positions: number[] }>();
    positionsOf(list, scheme, first).forEach((position, n) => {
      const { column, row } = panelAt(n, sheet);
      const size = { width: entryAt(columns, column), height: entryAt(rows, row) };
      if (sameSize(entryAt(list.pages, position - 1).trim, size)) return;
      const key = `${column} ${row}`;
      const group = groups.get(key) ?? { size, positions: [] };
      group.positions.push(position);
      groups.set(key, group);
    });
    for (const { size, positions } of groups.values())
      steps.push({
        kind: 'trim',
        pages: positions.sort((a, b) => a - b).join(', '),
        ...size,
        content: 'hold',
        fixed: CENTRE,
      });
  }
  return steps.length ? { code: 'worked-widths', steps } : undefined;
}

/** The positions of the pages of the leaflet that begins at an index, those of its outside first. */
function positionsOf({ pages }: PageList, scheme: Leaflet, first: number): number[] {
  const each = pagesPerLeaflet(scheme);
  const positions = pages.slice(first, first + each).map((_, n) => first + n + 1);
  return fromOutside(positions, scheme);
}

/** The family of these findings. */
export const folds: CheckKind<'folds', Found, Mends> = { kind: 'folds', check: checkFolds };
