/**
 * Twenty preparers at work for half an hour among 2,000 jobs: they open jobs, change them, order outputs and fetch them, take
 * files in and look for jobs, while files come into a drop folder. Says how long saving and asking how a job stands took, what
 * Folder held over that time, and whether all that was said yes to is there. Exit status 1 where anything is lost, saving or
 * asking is slow, or memory grows.
 * Run by hand: npm run trial:soak -- 30
 */
import { randomUUID } from 'node:crypto';
import { readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { isDeepStrictEqual } from 'node:util';
import { emptyDocket, type Docket } from '../src/lib/core/docket/docket';
import type { Step } from '../src/lib/core/docket/steps';
import { PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import type { JobPulse, JobState, JobStatus } from '../src/lib/wire/told';
import { markedPdf } from '../tests/outside';
import { freePort, KINDS, Running, sh } from './running';

const MINUTES = Number(process.argv[2] ?? 30);
const [PREPARERS, JOBS, OWN] = [Number(process.env.PREPARERS ?? 20), Number(process.env.JOBS ?? 2000), 4];
/** The slowest of 95 of 100, in ms, and how much more may be held at the end than when all was warm, in MB and as a factor. */
const [MOST_P95, MOST_GROWN_MB, MOST_GROWN] = [100, 30, 1.15];
const CLUSTER = 'soak-postgres';
const LOOK_MS = 10_000;

rmSync(join('.folder', CLUSTER), { recursive: true, force: true });
const folder = new Running(await freePort(), { FOLDER_CLUSTER: CLUSTER });
await folder.start();

let seed = 5;
const chance = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
const oneOf = <T>(all: readonly T[]): T => all[Math.floor(chance() * all.length)]!;
const think = (from: number, to: number) => wait(1000 * (from + chance() * (to - from)));

const took: Record<string, number[]> = {};
const refused: string[] = [];
async function timed<T>(what: string, work: () => Promise<T>): Promise<T> {
  const from = performance.now();
  try {
    return await work();
  } finally {
    (took[what] ??= []).push(performance.now() - from);
  }
}

/** What was said yes to: the last docket of each job, files taken in, outputs ordered, and files dropped. */
const saved = new Map<string, Docket>();
const taken = new Map<string, Set<string>>();
const ordered: { job: string; id: string }[] = [];
const dropped: string[] = [];
const files = await Promise.all(
  [8, 16, 24, 40, 64].map((pages) => markedPdf(pages, { prefix: `${pages} ` })),
);

const newJob = async (docket: Docket) =>
  (await folder.call<{ id: string }>('POST', '/api/jobs', { docket })).id;
const stateOf = (id: string) => folder.get<JobState>(`/api/jobs/${id}`);
const bleed = (of: number): Step => ({
  id: 'b',
  kind: 'bleed',
  pages: 'all',
  head: of,
  foot: of,
  spine: of,
  fore: of,
});

/** Asks how a job stands, as a window does that shows it. */
const statusIn = async (window: string, job: string): Promise<JobStatus> =>
  (await timed('status', () => folder.get<JobPulse>(`/api/jobs/${job}/status?window=${window}`))).status!;

/** Takes a file in, and waits until it is on the docket. */
async function takeIn(window: string, job: string): Promise<void> {
  // A comment behind its end makes each another file.
  const bytes = Buffer.concat([oneOf(files), Buffer.from(`\n% ${chance()}\n`)]);
  const { sha256 } = await timed('file', () =>
    folder.call<{ sha256: string }>('POST', `/api/jobs/${job}/intakes?name=part.pdf`, bytes),
  );
  taken.set(job, (taken.get(job) ?? new Set()).add(sha256));
  await until(window, job, ({ intakes }) =>
    intakes.every(({ state }) => state !== 'waiting' && state !== 'working' && state !== 'surveyed'),
  );
}
/** Asks how a job stands until it is so. */
async function until(window: string, job: string, so: (status: JobStatus) => boolean): Promise<JobStatus> {
  for (;;) {
    const status = await statusIn(window, job);
    if (so(status) || !going) return status;
    await wait(300);
  }
}

/** Changes a job as it stands now, as somebody at a bench does. */
async function change(window: string, job: string): Promise<void> {
  const { revision, docket } = await timed('open', () => stateOf(job));
  const steps = [...docket.steps.filter(({ id }) => id !== 'b'), bleed(1 + Math.floor(chance() * 12))];
  const changed = { ...docket, steps };
  await timed('save', () => folder.call('PUT', `/api/jobs/${job}`, { revision, docket: changed }));
  saved.set(job, changed);
  await statusIn(window, job);
}

/** Orders an output, waits for it and fetches it. */
async function order(window: string, job: string): Promise<void> {
  const output = oneOf([{ kind: 'sheets' }, { kind: 'pages', crop: 'trim' }]);
  const from = performance.now();
  const { id } = await timed('order', () =>
    folder.call<{ id: string }>('POST', `/api/jobs/${job}/outputs`, { output, despite: 'a trial' }),
  );
  ordered.push({ job, id });
  const isOver = ({ outputs }: JobStatus) =>
    outputs.some((each) => each.id === id && each.state !== 'waiting' && each.state !== 'working');
  await until(window, job, isOver);
  (took['output, order to done'] ??= []).push(performance.now() - from);
  const answer = await fetch(`${folder.url}/api/outputs/${id}/file`);
  const bytes = new Uint8Array(await answer.arrayBuffer());
  if (going && Buffer.from(bytes.subarray(0, 5)).toString() !== '%PDF-') refused.push(`output ${id}`);
}

let going = true;
async function preparer(jobs: readonly string[]): Promise<void> {
  const window = randomUUID();
  while (going) {
    const job = oneOf(jobs);
    try {
      await timed('page', async () => (await fetch(`${folder.url}/jobs/${job}/pages`)).text());
      for (let n = 0; going && n < 8; n++) {
        await think(1.5, 5);
        await change(window, job);
      }
      await order(window, job);
      if (chance() < 0.3) await takeIn(window, job);
      await think(1, 4);
      await timed('list', async () =>
        (await fetch(`${folder.url}/?q=job+1${Math.floor(chance() * 100)}`)).text(),
      );
    } catch (error) {
      // Whoever is alone at a job is never told that somebody else changed it.
      refused.push(String(error).slice(0, 300));
      await wait(1000);
    }
  }
}
async function drop(): Promise<void> {
  for (let n = 0; going; n++) {
    const name = `${String(n).padStart(4, '0')}.pdf`;
    folder.drop('desk', name, Buffer.concat([oneOf(files), Buffer.from(`\n% drop ${n}\n`)]));
    dropped.push(name);
    await wait(6000);
  }
}

await folder.call('PUT', '/api/recipes', {
  recipe: 1,
  name: 'Bleed',
  steps: [bleed(9)],
  outputs: [{ kind: 'pages', crop: 'trim' }],
});
await folder.call('POST', '/api/drop-folders', { name: 'desk', recipe: 'Bleed' });
const jobs: string[] = [];
for (let n = 0; n < JOBS; n++) {
  const blank: Step = {
    id: 'w',
    kind: 'blank',
    where: { at: 'end' },
    count: 8,
  };
  const docket = { ...emptyDocket(`Job ${n}`), scheme: PLAIN_SCHEMES.stitched, steps: [blank] };
  const id = await newJob(docket);
  jobs.push(id);
  saved.set(id, docket);
}
const desks = Array.from({ length: PREPARERS }, (_, n) => jobs.slice(n * OWN, (n + 1) * OWN));
for (const job of desks.flat()) {
  await takeIn(randomUUID(), job);
  saved.set(job, (await stateOf(job)).docket);
}
for (const all of Object.values(took)) all.length = 0;
console.log(`${JOBS} jobs, ${desks.flat().length} of them with files; ${PREPARERS} preparers begin`);

const held: Record<string, number>[] = [];
const work = [...desks.map(preparer), drop()];
for (const end = Date.now() + MINUTES * 60_000; Date.now() < end; await wait(LOOK_MS)) {
  held.push(Object.fromEntries(KINDS.map((kind) => [kind, folder.heldMb(kind)])));
  if (held.length % 30 === 0)
    console.log(`${(held.length * LOOK_MS) / 60_000} min: ${JSON.stringify(held.at(-1))}`);
}
going = false;
await Promise.all(work);

const wrong: string[] = refused.map((said) => `refused: ${said}`);
const sorted = (values: readonly number[]) => [...values].sort((a, b) => a - b);
const at = (values: readonly number[], share: number) =>
  sorted(values)[Math.floor(values.length * share)] ?? 0;
for (const [what, ms] of Object.entries(took)) {
  const [half, p95, p99] = [0.5, 0.95, 0.99].map((share) => at(ms, share));
  console.log(
    `${what}: ${ms.length} times, median ${half!.toFixed(0)} ms, 95 of 100 within ${p95!.toFixed(0)} ms, 99 within ${p99!.toFixed(0)} ms`,
  );
  if ((what === 'save' || what === 'status') && p95! > MOST_P95)
    wrong.push(`${what} took ${p95!.toFixed(0)} ms`);
}
// Once all is warm, and at the end; the database keeps what it read lately, up to what it was given.
const fifth = Math.floor(held.length / 5);
for (const kind of KINDS) {
  const [early, late] = [held.slice(fifth, 2 * fifth), held.slice(-fifth)].map((part) =>
    at(
      part.map((each) => each[kind]!),
      0.5,
    ),
  );
  console.log(
    `${kind}: ${early!.toFixed(0)} MB held after a fifth of the time, ${late!.toFixed(0)} MB at the end`,
  );
  if (kind !== 'postgres' && late! > early! * MOST_GROWN && late! > early! + MOST_GROWN_MB)
    wrong.push(`${kind} grew from ${early!.toFixed(0)} to ${late!.toFixed(0)} MB`);
}

// Whatever was ordered or dropped comes to an end.
for (let quiet = 0; quiet < 3; await wait(1000)) {
  const { queue } = await folder.get<{ queue: { waiting: number; working: number } }>('/healthz');
  const left = readdirSync(join(folder.drops, 'desk')).filter((name) => name.endsWith('.pdf')).length;
  quiet = queue.waiting + queue.working + left ? 0 : quiet + 1;
}
for (const [job, docket] of saved) {
  const is = (await stateOf(job)).docket;
  const [as, here] = [docket, is].map(({ steps }) => steps.filter(({ id }) => id === 'b' || id === 'w'));
  if (!isDeepStrictEqual(as, here)) wrong.push(`a save of ${docket.title} is lost`);
  const sources = is.steps.flatMap((step) => (step.kind === 'take-in' ? [step.source] : []));
  for (const source of taken.get(job) ?? [])
    if (sources.filter((each) => each === source).length !== 1)
      wrong.push(
        `a file of ${docket.title} is there ${sources.filter((each) => each === source).length} times`,
      );
}
const looked = new Map<string, JobStatus>();
let checked = 0;
for (const { job, id } of ordered) {
  const status = looked.get(job) ?? (await folder.get<JobStatus>(`/api/jobs/${job}/status`));
  looked.set(job, status);
  const found = status.outputs.find((each) => each.id === id);
  if (found?.state !== 'done') wrong.push(`an output is ${found?.state ?? 'lost'}`);
  else if (checked++ % 20 === 0) {
    const path = join(tmpdir(), `folder-soak-${process.pid}.pdf`);
    writeFileSync(
      path,
      new Uint8Array(await (await fetch(`${folder.url}/api/outputs/${id}/file`)).arrayBuffer()),
    );
    sh('qpdf', '--check', path);
    rmSync(path);
  }
}
const done = new Set(readdirSync(join(folder.drops, 'desk', 'done')));
for (const name of dropped)
  if (!done.has(name.replace('.pdf', ''))) wrong.push(`${name} was dropped and is not done`);

await folder.stop();
console.log(`${took.save?.length ?? 0} saves, ${ordered.length} outputs, ${dropped.length} files dropped`);
console.log(
  wrong.length ? `WRONG\n${wrong.slice(0, 40).join('\n')}` : 'Nothing lost, nothing slow, memory flat.',
);
process.exit(wrong.length ? 1 : 0);
