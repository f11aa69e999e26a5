/**
 * Sheet PDF against a plain rewrite by qpdf, in one run: time and peak memory as ratios.
 * Run by hand: npm run build && npx tsx bench/sheets.ts
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import { emptyDocket } from '../src/lib/core/docket/docket';
import { surveyPdf } from '../src/lib/pdf/survey';
import { dismissStandby, keepReady, runInFence } from '../src/lib/server/fence';

process.env.FOLDER_BUILT = '1';
const ROUNDS = 5;
const folder = mkdtempSync(join(tmpdir(), 'folder-bench-'));

/** Pages of running text, each with a stream of its own: about 2 kB packed. */
async function textFile(pages: number): Promise<string> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.Helvetica);
  let seed = 7;
  const word = () => (seed = (seed * 16807) % 2147483647).toString(36);
  for (let n = 1; n <= pages; n++) {
    const page = document.addPage([420, 595]);
    page.setFont(font);
    for (let line = 0; line < 42; line++)
      page.drawText(Array.from({ length: 9 }, word).join(' '), { x: 40, y: 555 - line * 12, size: 9 });
    page.drawText(String(n), { x: 200, y: 20, size: 9 });
  }
  const path = join(folder, `${pages}.pdf`);
  writeFileSync(path, await document.save({ useObjectStreams: false }));
  return path;
}

const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** Seconds that qpdf takes to write the file anew, its start included. */
function rewrite(file: string): number {
  const start = performance.now();
  const { status } = spawnSync('qpdf', [file, join(folder, 'plain.pdf')]);
  if (status !== 0) throw new Error('qpdf failed');
  return (performance.now() - start) / 1000;
}

/** Seconds that the sheets take as the worker makes them, in a fenced process that stands by; and the same with its start. */
async function makeSheets(task: unknown, ready: boolean): Promise<{ seconds: number; mb: number }> {
  if (ready) {
    keepReady('writeOutputFile');
    await new Promise((done) => setTimeout(done, 1500));
  } else dismissStandby();
  const start = performance.now();
  const { peakMb } = await runInFence('writeOutputFile', task, { seconds: 600, mb: 8192 });
  return { seconds: (performance.now() - start) / 1000, mb: peakMb };
}

for (const pages of [500, 5000]) {
  const file = await textFile(pages);
  const bytes = readFileSync(file);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const docket = {
    ...emptyDocket('Bench'),
    steps: [{ id: 't', kind: 'take-in', source: hash, name: 'bench.pdf', where: { at: 'end' } }],
  };
  const task = {
    docket,
    output: { kind: 'sheets' },
    surveys: { [hash]: await surveyPdf(bytes) },
    files: { [hash]: file },
    out: join(folder, 'out.pdf'),
    at: new Date().toISOString(),
  };
  const [plain, ours, cold, mb]: [number[], number[], number[], number[]] = [[], [], [], []];
  for (let round = 0; round < ROUNDS; round++) {
    plain.push(rewrite(file));
    const made = await makeSheets(task, true);
    ours.push(made.seconds);
    mb.push(made.mb);
    cold.push((await makeSheets(task, false)).seconds);
  }
  if (spawnSync('qpdf', ['--check', task.out]).status !== 0)
    throw new Error('the sheets do not pass qpdf --check');
  const base = median(plain);
  const megabytes = statSync(file).size / 1024 / 1024;
  const most = 4 * megabytes + 200;
  console.log(
    `${pages} pages, ${megabytes.toFixed(1)} MB: ${(median(ours) / base).toFixed(2)} × qpdf (${median(ours).toFixed(2)} s, ${base.toFixed(2)} s); ` +
      `with the start of a process ${(median(cold) / base).toFixed(2)} ×; peak memory ${Math.max(...mb).toFixed(0)} MB, ${(Math.max(...mb) / most).toFixed(2)} of 4 × file + 200 MB`,
  );
}
dismissStandby();
rmSync(folder, { recursive: true });
