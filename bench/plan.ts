/**
 * Whether what is worked out of a long job grows with its pages: 10,000 in 16-page signatures against 20,000, in one run, as
 * ratios: its steps gone through, what is found, its sheet plan, and what is drawn of its pages and sheets.
 * Run by hand: npm run bench:plan
 */
import { emptyDocket } from '../src/lib/core/docket/docket';
import { replay } from '../src/lib/core/docket/replay';
import type { Step } from '../src/lib/core/docket/steps';
import { workOut } from '../src/lib/core/checks';
import { mm } from '../src/lib/core/measure/unit';
import { PLAIN_LINES } from '../src/lib/core/model/lines';
import { facesOf, sideAt } from '../src/lib/core/pages/page';
import { PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import { sidesOf } from '../src/lib/core/sheets/plan';
import { pageSurface } from '../src/lib/core/surface/pageSurface';
import { plainSurvey } from '../tests/makers';
import { median } from './files';

const [ROUNDS, MOST] = [15, 2.1];
const source = '0'.repeat(64);
const STEPS: Step[] = [
  { id: 't', kind: 'take-in', source, name: 'x.pdf', where: { at: 'end' } },
  { id: 'b', kind: 'bleed', pages: 'all', head: mm(3), foot: mm(3), spine: 0, fore: mm(3) },
  { id: 'm', kind: 'move', pages: '11-20', where: { at: 'start' } },
  { id: 'r', kind: 'remove', pages: '5' },
  { id: 'w', kind: 'blank', where: { at: 'end' }, count: 1 },
  {
    id: 'f',
    kind: 'folio',
    pages: 'all',
    ...PLAIN_LINES,
    ...{ x: mm(12), y: mm(8), edge: 'foot', across: 'outer', text: '{page}' },
  },
];
const docket = { ...emptyDocket('Bench'), steps: STEPS, scheme: PLAIN_SCHEMES.signatures };

/** Seconds that each part takes; a job is worked out as far as it is asked, so that each has one of its own. */
const PARTS: Record<string, (pages: number) => number> = {
  'steps gone through': (pages) => {
    const surveys = { [source]: plainSurvey(pages) };
    return seconds(() => replay(docket, surveys).list.pages.length === pages);
  },
  'what is found': (pages) => {
    const work = workOut(docket, { [source]: plainSurvey(pages) });
    if (!work.list.pages.length || !work.plan) throw new Error('no pages');
    return seconds(() => work.findings.length >= 0);
  },
  'sheet plan, and all cells, lines and marks': (pages) => {
    const work = workOut(docket, { [source]: plainSurvey(pages) });
    if (!work.list.pages.length) throw new Error('no pages');
    return seconds(() => sidesOf(work.plan!).flatMap(({ drawn }) => drawn.cells).length >= pages);
  },
  'all that is drawn of pages': (pages) => {
    const { list } = workOut(docket, { [source]: plainSurvey(pages) });
    const faces = facesOf(list);
    return seconds(() => faces.every((page, n) => pageSurface(page, sideAt(n, list)).items.length >= 0));
  },
};
function seconds(work: () => boolean): number {
  const start = performance.now();
  if (!work()) throw new Error('something is missing');
  return (performance.now() - start) / 1000;
}

for (const [what, part] of Object.entries(PARTS)) {
  part(10_000);
  const [small, large, times]: [number[], number[], number[]] = [[], [], []];
  for (let round = 0; round < ROUNDS; round++) {
    // What the machine does besides comes and goes: each long job stands between two shorter ones.
    const [before, long, after] = [part(10_000), part(20_000), part(10_000)];
    small.push(before, after);
    large.push(long);
    times.push((2 * long) / (before + after));
  }
  const ratio = median(times);
  console.log(
    `${what}: 20,000 pages against 10,000: ${ratio.toFixed(2)} × (${median(large).toFixed(3)} s, ${median(small).toFixed(3)} s); ${MOST} is allowed`,
  );
  if (ratio > MOST) process.exitCode = 1;
}
