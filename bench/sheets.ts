/**
 * Sheet PDF against a plain rewrite by qpdf, in one run: time and peak memory as ratios.
 * Run by hand: npm run build && npx tsx bench/sheets.ts
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyDocket, type Docket } from '../src/lib/core/docket/docket';
import { surveyPdf } from '../src/lib/pdf/read/survey';
import { median, textFile } from './textFile';
import { openToFence } from '../src/lib/server/fenceUser';
import { dismissStandby } from '../src/lib/server/fence';
import { makeOutput } from './fenced';

process.env.FOLDER_BUILT = '1';
const ROUNDS = 9;
const folder = mkdtempSync(join(tmpdir(), 'folder-bench-'));
await openToFence(folder);

/** Seconds that qpdf takes to write the file anew, its start included. */
function rewrite(file: string): number {
  const start = performance.now();
  const { status } = spawnSync('qpdf', [file, join(folder, 'plain.pdf')]);
  if (status !== 0) throw new Error('qpdf failed');
  return (performance.now() - start) / 1000;
}

for (const pages of [500, 5000]) {
  const file = await textFile(pages, folder);
  const bytes = readFileSync(file);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const docket: Docket = {
    ...emptyDocket('Bench'),
    steps: [{ id: 't', kind: 'take-in', source: hash, name: 'bench.pdf', where: { at: 'end' } }],
  };
  const task = {
    docket,
    output: { kind: 'sheets' } as const,
    surveys: { [hash]: await surveyPdf(bytes) },
    files: { [hash]: file },
    folder,
    at: new Date().toISOString(),
  };
  const [plain, ours, cold, mb]: [number[], number[], number[], number[]] = [[], [], [], []];
  for (let round = 0; round < ROUNDS; round++) {
    plain.push(rewrite(file));
    const made = await makeOutput(task, true);
    ours.push(made.seconds);
    mb.push(made.mb);
    cold.push((await makeOutput(task, false)).seconds);
  }
  if (spawnSync('qpdf', ['--check', join(folder, '1')]).status !== 0)
    throw new Error('the sheets do not pass qpdf --check');
  const base = median(plain);
  const megabytes = statSync(file).size / 1024 / 1024;
  const most = 3 * megabytes + 150;
  console.log(
    `${pages} pages, ${megabytes.toFixed(1)} MB: ${(median(ours) / base).toFixed(2)} × qpdf (${median(ours).toFixed(2)} s, ${base.toFixed(2)} s); ` +
      `with the start of a process ${(median(cold) / base).toFixed(2)} ×; peak memory ${Math.max(...mb).toFixed(0)} MB, ${(Math.max(...mb) / most).toFixed(2)} of 3 × file + 150 MB`,
  );
}
dismissStandby();
rmSync(folder, { recursive: true });
