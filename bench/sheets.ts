/**
 * Sheets and pages against a plain rewrite by qpdf, in one run: time and peak memory as ratios, as a worker makes them.
 * Run by hand: npm run build && npm run bench
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyDocket, type Docket } from '../src/lib/core/docket/docket';
import type { Output } from '../src/lib/core/handover/outputs';
import { surveyPdf } from '../src/lib/pdf/read/survey';
import { dismissStandby } from '../src/lib/server/fence';
import { openToFence } from '../src/lib/server/fenceUser';
import { makeOutput } from './fenced';
import { heavyFile, median, textFile } from './files';

process.env.FOLDER_BUILT = '1';
const ROUNDS = Number(process.env.ROUNDS ?? 7);
const folder = mkdtempSync(join(tmpdir(), 'folder-bench-'));
await openToFence(folder);

/** Where outputs are made: a folder that is empty each time, as those of a worker are. */
const made = join(folder, 'made');
async function emptied(): Promise<void> {
  rmSync(made, { recursive: true, force: true });
  mkdirSync(made);
  await openToFence(made);
}

/** Seconds that qpdf takes to write the file anew, its start included. */
function rewrite(file: string): number {
  const start = performance.now();
  const { status } = spawnSync('qpdf', [file, join(made, 'plain.pdf')]);
  if (status !== 0) throw new Error('qpdf failed');
  return (performance.now() - start) / 1000;
}

/** A job with one file, as it is when it comes. */
async function jobOf(file: string) {
  const bytes = readFileSync(file);
  const hash = createHash('sha256').update(bytes).digest('hex');
  // What is proved, too, takes longer by that: bench:proof.
  const docket: Docket = {
    ...emptyDocket('Bench'),
    prove: false,
    steps: [{ id: 't', kind: 'take-in', source: hash, name: 'bench.pdf', where: { at: 'end' } }],
  };
  return {
    docket,
    surveys: { [hash]: await surveyPdf(bytes) },
    files: { [hash]: file },
    folder: made,
    at: new Date().toISOString(),
  };
}

async function measure(file: string, output: Output): Promise<void> {
  const { kind } = output;
  const task = { ...(await jobOf(file)), output };
  const pages = Object.values(task.surveys)[0]!.pages.length;
  const [plain, ours, mb]: [number[], number[], number[]] = [[], [], []];
  await emptied();
  const cold = (await makeOutput(task, false)).seconds;
  await makeOutput(task, true);
  for (let round = 0; round < ROUNDS; round++) {
    await emptied();
    plain.push(rewrite(file));
    const { seconds, mb: peak } = await makeOutput(task, true);
    ours.push(seconds);
    mb.push(peak);
  }
  if (spawnSync('qpdf', ['--check', join(made, '1')]).status !== 0)
    throw new Error(`the ${kind} do not pass qpdf --check`);
  const [base, took, peak] = [median(plain), median(ours), Math.max(...mb)];
  const megabytes = statSync(file).size / 1024 / 1024;
  const most = 1.5 * megabytes + 100;
  console.log(
    `${kind}, ${pages} pages, ${megabytes.toFixed(1)} MB: ${(took / base).toFixed(2)} × qpdf (${took.toFixed(2)} s, ${base.toFixed(2)} s); ` +
      `with the start of a process ${(cold / base).toFixed(2)} ×; peak memory ${peak.toFixed(0)} MB, ${(peak / most).toFixed(2)} of 1.5 × file + 100 MB`,
  );
}

const files = [await textFile(500, folder), await textFile(5000, folder), await heavyFile(106, folder)];
const outputs: Output[] = [{ kind: 'sheets' }, { kind: 'pages', crop: 'trim' }];
for (const file of files) for (const output of outputs) await measure(file, output);
dismissStandby();
rmSync(folder, { recursive: true });
