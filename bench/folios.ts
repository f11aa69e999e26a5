/**
 * What folios add to the time of writing 1,000 pages as the worker writes them, in one run: with and without in turn, as a
 * ratio. Run by hand: npm run build && npm run bench:folios
 */
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyDocket, type Docket } from '../src/lib/core/docket/docket';
import type { Output } from '../src/lib/core/handover/outputs';
import type { Step } from '../src/lib/core/docket/steps';
import { mm } from '../src/lib/core/measure/unit';
import { PLAIN_LINES } from '../src/lib/core/model/lines';
import { surveyPdf } from '../src/lib/pdf/read/survey';
import { openToFence } from '../src/lib/server/fenceUser';
import { dismissStandby } from '../src/lib/server/fence';
import { makeOutput } from './fenced';
import { median, textFile } from './files';

process.env.FOLDER_BUILT = '1';
const [PAGES, ROUNDS] = [1000, 9];
/** How much folios may add. */
const MOST = 1.25;

const folder = mkdtempSync(join(tmpdir(), 'folder-bench-'));
await openToFence(folder);
const file = await textFile(PAGES, folder);
const bytes = readFileSync(file);
const source = createHash('sha256').update(bytes).digest('hex');
const surveys = { [source]: await surveyPdf(bytes) };
const folios: Step = {
  id: 'f',
  kind: 'folio',
  pages: 'all',
  ...PLAIN_LINES,
  x: mm(12),
  y: mm(8),
  edge: 'foot',
  across: 'outer',
  text: '{page}',
};
const docketWith = (...steps: Step[]): Docket => ({
  ...emptyDocket('Bench'),
  steps: [{ id: 't', kind: 'take-in', source, name: 'bench.pdf', where: { at: 'end' } }, ...steps],
});
const seconds = async (docket: Docket, output: Output): Promise<number> => {
  const task = { docket, output, surveys, files: { [source]: file }, folder, at: new Date().toISOString() };
  return (await makeOutput(task, true)).seconds;
};

for (const output of [{ kind: 'pages', crop: 'bleed' }, { kind: 'sheets' }] as const) {
  const [bare, numbered]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    bare.push(await seconds(docketWith(), output));
    numbered.push(await seconds(docketWith(folios), output));
  }
  const ratio = median(numbered) / median(bare);
  console.log(
    `${PAGES} ${output.kind} with folios: ${ratio.toFixed(2)} × without (${median(numbered).toFixed(2)} s, ${median(bare).toFixed(2)} s), fastest by fastest ${(Math.min(...numbered) / Math.min(...bare)).toFixed(2)} ×; ${MOST} is allowed`,
  );
  if (output.kind === 'pages' && ratio > MOST) process.exitCode = 1;
}
dismissStandby();
rmSync(folder, { recursive: true });
