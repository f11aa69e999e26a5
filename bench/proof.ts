import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { workOut } from '../src/lib/core/checks';
import { handOver } from '../src/lib/make/handOver';
import { proveSheets } from '../src/lib/make/prove';
import { demoJobs } from '../tests/demoJobs';

/*
 * How long it takes to prove the handbook of 128 pages and its cover, with and without measuring its edges, by how long its sheets
 * take to be written; and the most memory that was used.
 */

const job = (await demoJobs()).find(({ docket }) => docket.title === 'Handbook with a turned cell')!;
const { docket, surveys, read } = job;
const work = workOut(docket, surveys);
const folder = mkdtempSync(join(tmpdir(), 'folder-bench-'));
const context = { surveys, read, folder, at: new Date(0) };

async function timed<T>(work: () => Promise<T>): Promise<[result: T, ms: number]> {
  const from = performance.now();
  const result = await work();
  return [result, performance.now() - from];
}

await handOver({ ...docket, prove: false }, { kind: 'sheets' }, context);
const [made, write] = await timed(() => handOver({ ...docket, prove: false }, { kind: 'sheets' }, context));
const sheets = readFileSync(join(folder, made[0]!.file));
const [proof, plain] = await timed(() => proveSheets(work, sheets, context));
const [, edges] = await timed(() => proveSheets(work, sheets, context, { withEdges: true }));
const megabytes = Math.round(process.memoryUsage().rss / 1e6);
console.log(
  `${proof.pages.length} pages: proof ${Math.round(plain)} ms, ${(plain / write).toFixed(1)} × writing the sheets`,
);
console.log(`with edges ${Math.round(edges)} ms, ${(edges / write).toFixed(1)} ×; ${megabytes} MB`);
