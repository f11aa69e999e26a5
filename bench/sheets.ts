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
import { WRITER_FLAGS } from '../src/lib/server/fenced/flags';

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
    for (let line = 0; line < 42; line++) page.drawText(Array.from({ length: 9 }, word).join(' '), { x: 40, y: 555 - line * 12, size: 9 });
    page.drawText(String(n), { x: 200, y: 20, size: 9 });
  }
  const path = join(folder, `${pages}.pdf`);
  writeFileSync(path, await document.save({ useObjectStreams: false }));
  return path;
}

const REPORT = 'data:text/javascript,process.on("exit",()=>process.stderr.write("MAXRSS "+process.resourceUsage().maxRSS))';

/** Runs a command; seconds, and for Node.js its peak resident memory in MB as the kernel counted it. */
function measure(command: string, args: string[], input = ''): { seconds: number; mb: number } {
  const start = process.hrtime.bigint();
  const run = spawnSync(command, args, { input, encoding: 'utf8', maxBuffer: 1 << 28 });
  const seconds = Number(process.hrtime.bigint() - start) / 1e9;
  if (run.status !== 0 || run.stdout.includes('trouble')) throw new Error(run.stderr + run.stdout);
  return { seconds, mb: Number(/MAXRSS (\d+)/.exec(run.stderr)?.[1] ?? 0) / 1024 };
}

const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

for (const pages of [500, 5000]) {
  const file = await textFile(pages);
  const bytes = readFileSync(file);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const docket = { ...emptyDocket('Bench'), steps: [{ id: 't', kind: 'take-in', source: hash, name: 'bench.pdf', where: { at: 'end' } }] };
  const task = { docket, output: { kind: 'sheets' }, surveys: { [hash]: await surveyPdf(bytes) }, files: { [hash]: file }, out: join(folder, 'out.pdf'), at: new Date().toISOString() };
  const ours: { seconds: number; mb: number }[] = [];
  const theirs: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    theirs.push(measure('qpdf', [file, join(folder, 'plain.pdf')]).seconds);
    ours.push(measure(process.execPath, ['--import', REPORT, ...WRITER_FLAGS, 'build/tools/fenced/writeOutputFile.mjs'], JSON.stringify(task)));
  }
  measure('qpdf', ['--check', task.out]);
  const [mine, plain] = [median(ours.map(({ seconds }) => seconds)), median(theirs)];
  const mb = Math.max(...ours.map((run) => run.mb));
  const megabytes = statSync(file).size / 1024 / 1024;
  console.log(`${pages} pages, ${megabytes.toFixed(1)} MB: time ${(mine / plain).toFixed(2)} × qpdf (${mine.toFixed(2)} s, ${plain.toFixed(2)} s); peak memory ${mb.toFixed(0)} MB, ${(mb / (4 * megabytes + 200)).toFixed(2)} of 4 × file + 200 MB`);
}
rmSync(folder, { recursive: true });
