/**
 * Stops the workers for a minute, then kills web server, worker, fenced process and database in turn, with SIGKILL, while files arrive, dockets are saved, outputs
 * are made and a drop folder is filled; then says what of all that was acknowledged is there. Exit status 1 where anything is
 * lost, doubled, stuck or unreadable.
 * Run by hand: npm run trial:kills -- 50
 */
import { randomBytes } from 'node:crypto';
import { readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { markedPdf } from '../tests/outside';
import { PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import { emptyDocket } from '../src/lib/core/docket/docket';
import type { JobState, JobStatus } from '../src/lib/wire/told';
import { freePort, Refusal, Running } from './running';

const KILLS = Number(process.argv[2] ?? 50);
const PARTS = ['worker', 'fenced', 'web', 'postgres'] as const;
const CLUSTER = 'trial-postgres';
const EVERY_MS = 4000;
const PAUSE_MS = 60_000;
/** How work ends whose every try was killed. */
const AFTER_TRIES = new Set(['worker-died', 'stopped-early', 'unforeseen']);
/** What waits goes on being worked afterwards; if nothing of it moved for so long, it is stuck. */
const STUCK_SECONDS = 120;

const tempBefore = new Set(readdirSync(tmpdir()));
rmSync(join('.folder', CLUSTER), { recursive: true, force: true });
const folder = new Running(await freePort(), { FOLDER_CLUSTER: CLUSTER });
await folder.start();
let going = true;

/** What was said yes to. */
const acknowledged = {
  saves: [] as string[],
  files: new Map<string, string>(),
  outputs: [] as string[],
  dropped: [] as string[],
};
const newJob = (title: string) =>
  folder.insist(() =>
    folder.call<{ id: string }>('POST', '/api/jobs', {
      docket: { ...emptyDocket(title), scheme: PLAIN_SCHEMES.stitched },
    }),
  );
const statusOf = (id: string) => folder.get<JobStatus>(`/api/jobs/${id}/status`);

/** A file of its own, of 1 to 60 pages. */
const file = async (n: number) => markedPdf(1 + ((n * 7) % 60), { prefix: randomBytes(4).toString('hex') });

await folder.call('PUT', '/api/recipes', {
  recipe: 1,
  name: 'Bleed',
  steps: [{ id: 'b', kind: 'bleed', pages: 'all', head: 9, foot: 9, spine: 9, fore: 9 }],
  outputs: [{ kind: 'pages', crop: 'trim' }],
});
await folder.call('POST', '/api/drop-folders', { name: 'desk', recipe: 'Bleed' });
const saved = await newJob('Saved');
const taken: string[] = [];
const made = await newJob('Made');
await folder.call('POST', `/api/jobs/${made.id}/intakes?name=made.pdf`, await markedPdf(200));
// Before its pages are there it has no sheets to be made.
while (!(await folder.get<JobState>(`/api/jobs/${made.id}`)).docket.steps.length) await wait(200);

async function save(): Promise<void> {
  for (let n = 0; going; n++) {
    const id = `s-${n}`;
    try {
      const { revision, docket } = await folder.get<JobState>(`/api/jobs/${saved.id}`);
      const steps = [
        ...docket.steps,
        { id, kind: 'blank', where: { at: 'end' }, count: 1, size: { width: 300, height: 400 } },
      ];
      await folder.call('PUT', `/api/jobs/${saved.id}`, {
        revision,
        docket: { ...docket, steps: steps.slice(-400) },
      });
      acknowledged.saves.push(id);
    } catch (error) {
      if (error instanceof Refusal && error.status < 500 && error.status !== 409) throw error;
      await wait(200);
    }
    await wait(150);
  }
}

async function takeIn(): Promise<void> {
  for (let n = 0; going; n++) {
    const job = await newJob(`Taken ${n}`);
    taken.push(job.id);
    const bytes = await file(n);
    try {
      const { sha256 } = await folder.call<{ sha256: string }>(
        'POST',
        `/api/jobs/${job.id}/intakes?name=${n}.pdf`,
        bytes,
      );
      acknowledged.files.set(job.id, sha256);
    } catch (error) {
      if (error instanceof Refusal && error.status < 500) throw error;
    }
    await wait(400);
  }
}

async function order(): Promise<void> {
  while (going) {
    try {
      const { id } = await folder.call<{ id: string }>('POST', `/api/jobs/${made.id}/outputs`, {
        output: { kind: acknowledged.outputs.length % 2 ? 'sheets' : 'pages', crop: 'trim' },
        despite: 'a trial',
      });
      acknowledged.outputs.push(id);
    } catch (error) {
      if (error instanceof Refusal && error.status < 500) throw error;
    }
    await wait(2500);
  }
}

async function drop(): Promise<void> {
  for (let n = 0; going; n++) {
    const name = `${String(n).padStart(4, '0')}.pdf`;
    folder.drop('desk', name, await file(n));
    acknowledged.dropped.push(name);
    await wait(1200);
  }
}

const work = [save(), takeIn(), order(), drop()];
// All workers stand still for much longer than silence lasts, then go on with what they believe to be theirs.
const paused = folder.pidsOf('worker');
for (const pid of paused) process.kill(pid, 'SIGSTOP');
await wait(PAUSE_MS);
for (const pid of paused) process.kill(pid, 'SIGCONT');
console.log(`workers stopped for ${PAUSE_MS / 1000} s: ${paused.length}`);
const killed: Record<string, number> = {};
for (let n = 0; n < KILLS; n++) {
  await wait(EVERY_MS);
  const part = PARTS[n % PARTS.length]!;
  const pids = folder.pidsOf(part);
  // The postmaster alone: what it started ends when it is gone.
  const pid = part === 'postgres' ? Math.min(...pids) : pids[n % Math.max(1, pids.length)];
  if (!pid || !Number.isFinite(pid)) continue;
  process.kill(pid, 'SIGKILL');
  killed[part] = (killed[part] ?? 0) + 1;
  process.stdout.write('.');
}
going = false;
await Promise.all(work);
console.log(`\nkilled: ${JSON.stringify(killed)}`);
await folder.isWell(120);

/** Waits until nothing waits or is worked any more; false if that does not move. */
async function settled(): Promise<boolean> {
  let [last, since] = [-1, Date.now()];
  while (Date.now() - since < STUCK_SECONDS * 1000) {
    await wait(1000);
    const queue = await folder.get<{ queue: { waiting: number; working: number } }>('/healthz').then(
      (told) => told.queue,
      () => undefined,
    );
    if (!queue) continue;
    const left = readdirSync(join(folder.drops, 'desk')).filter((name) => name.endsWith('.pdf')).length;
    const now = queue.waiting + queue.working + left;
    if (!now) return true;
    if (now !== last) [last, since] = [now, Date.now()];
  }
  return false;
}
const isSettled = await settled();

const wrong: string[] = [];
const jobs = await folder.get<{ id: string; summary: { title: string } }[]>('/api/jobs');
let unreadable = 0;
for (const { id } of jobs) await folder.get(`/api/jobs/${id}`).catch(() => unreadable++);
if (unreadable) wrong.push(`${unreadable} jobs are unreadable`);

const { docket } = await folder.get<JobState>(`/api/jobs/${saved.id}`);
const there = new Set(docket.steps.map(({ id }) => id));
const lostSaves = acknowledged.saves.slice(-350).filter((id) => !there.has(id));
if (lostSaves.length) wrong.push(`acknowledged saves lost: ${lostSaves.join(' ')}`);

let [lost, twice, told] = [0, 0, 0];
for (const [id, sha256] of acknowledged.files) {
  const { docket: of } = await folder.get<JobState>(`/api/jobs/${id}`);
  const steps = of.steps.filter((step) => step.kind === 'take-in' && step.source === sha256);
  if (steps.length > 1) twice++;
  if (steps.length) continue;
  const { intakes } = await statusOf(id);
  if (intakes.some(({ state }) => state === 'failed')) told++;
  else lost++;
}
if (lost) wrong.push(`${lost} files lost`);
if (twice) wrong.push(`${twice} files taken in twice`);

const { outputs } = await statusOf(made.id);
const stuck = outputs.filter(({ state }) => state === 'waiting' || state === 'working').length;
const failed = outputs.filter(({ state }) => state === 'failed');
for (const { trouble } of failed)
  if (!AFTER_TRIES.has(trouble?.code ?? '')) wrong.push(`an output failed: ${JSON.stringify(trouble)}`);
const missing = acknowledged.outputs
  .slice(-50)
  .filter((id) => !outputs.some((each) => each.id === id)).length;
if (stuck || !isSettled) wrong.push(`${stuck} outputs are stuck, settled: ${isSettled}`);
if (missing) wrong.push(`${missing} outputs are missing`);

const ended = [
  ...readdirSync(join(folder.drops, 'desk', 'done')),
  ...readdirSync(join(folder.drops, 'desk', 'failed')),
];
const names = acknowledged.dropped.map((name) => name.replace('.pdf', ''));
const gone = names.filter((name) => !ended.includes(name));
const doubled = ended.filter((name) => !names.includes(name));
const jobsOf = (name: string) => jobs.filter(({ summary }) => summary.title === name).length;
const jobsTwice = names.filter((name) => jobsOf(name) > 1);
if (gone.length) wrong.push(`dropped files lost: ${gone.join(' ')}`);
if (doubled.length || jobsTwice.length)
  wrong.push(`dropped files twice: ${[...doubled, ...jobsTwice].join(' ')}`);

// What a killed worker left of its work is gone after the next start.
await folder.stop();
await folder.start();
await wait(2000);
await folder.stop();
const temp = readdirSync(tmpdir()).filter(
  (name) => name.startsWith('folder-work-') && !tempBefore.has(name) && !isOfSomebody(name),
);
if (temp.length) wrong.push(`temp folders left: ${temp.join(' ')}`);

function isOfSomebody(name: string): boolean {
  try {
    process.kill(Number(/-(\d+)-[^-]*$/.exec(name)?.[1]), 0);
    return true;
  } catch {
    return false;
  }
}

console.log(
  `${acknowledged.saves.length} saves, ${acknowledged.files.size} files taken in, ${acknowledged.outputs.length} outputs, ${acknowledged.dropped.length} files dropped, ${jobs.length} jobs`,
);
console.log(`ended after three tries that were all killed, and told as such: ${failed.length + told}`);
console.log(
  wrong.length
    ? `WRONG\n${wrong.join('\n')}`
    : 'Nothing lost, nothing twice, nothing stuck, everything readable, no temp folders left.',
);
process.exit(wrong.length ? 1 : 0);
