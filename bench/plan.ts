/**
 * Whether the sheet plan grows with the pages: 10,000 pages in 16-page signatures against 20,000, in one run, as a ratio.
 * Run by hand: npm run bench:plan
 */
import { emptyDocket } from '../src/lib/core/docket/docket';
import { workOut } from '../src/lib/core/checks';
import { PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import { sidesOf } from '../src/lib/core/sheets/plan';
import { plainSurvey } from '../tests/makers';
import { median } from './files';

const [ROUNDS, MOST] = [9, 2.3];
const source = '0'.repeat(64);
const listOf = (pages: number) => {
  const steps = [{ id: 't', kind: 'take-in' as const, source, name: 'x.pdf', where: { at: 'end' as const } }];
  const docket = { ...emptyDocket('Bench'), steps, scheme: PLAIN_SCHEMES.signatures };
  return workOut(docket, { [source]: plainSurvey(pages) });
};

/** Seconds to work out the pages and all cells, lines and marks of their sheets. */
function plan(pages: number): number {
  const start = performance.now();
  const { plan } = listOf(pages);
  if (sidesOf(plan!).flatMap(({ drawn }) => drawn.cells).length < pages) throw new Error('cells are missing');
  return (performance.now() - start) / 1000;
}

plan(10_000);
const [small, large]: [number[], number[]] = [[], []];
for (let round = 0; round < ROUNDS; round++) {
  small.push(plan(10_000));
  large.push(plan(20_000));
}
const ratio = median(large) / median(small);
console.log(
  `20,000 pages against 10,000: ${ratio.toFixed(2)} × (${median(large).toFixed(2)} s, ${median(small).toFixed(2)} s); ${MOST} is allowed`,
);
if (ratio > MOST) process.exitCode = 1;
