import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeAll, expect, test, vi } from 'vitest';
import { surveySchema } from '../core/model/survey';
import { markedPdf } from '../../../tests/outside';
import { dismissStandby, keepReady, runInFence, type FenceLimits } from './fence';
import { fenceUser, openToFence } from './fenceUser';
import { keepToOwnCore, numbersOf } from './ownCore';

vi.hoisted(() => (process.env.FOLDER_WORKER = '1'));

const folder = mkdtempSync(join(tmpdir(), 'folder-fence-'));
const task = {
  file: join(folder, 'in.pdf'),
  out: join(folder, 'survey.json'),
  pdf: join(folder, 'made.pdf'),
};
await openToFence(folder);
const ROOMY = { seconds: 60, mb: 2048 };
beforeAll(async () => writeFileSync(task.file, await markedPdf(300)));
afterEach(dismissStandby);

/** What `look` sees of the processes, every few milliseconds while a task runs in one; of one that has just exited nothing. */
async function whileItRuns<Seen>(
  look: (pid: number | string) => Seen | undefined,
  limits: FenceLimits = ROOMY,
): Promise<Seen[]> {
  const seen: Seen[] = [];
  const looking = setInterval(() => {
    for (const pid of there())
      try {
        const now = look(pid);
        if (now !== undefined && now !== '') seen.push(now);
      } catch {
        // It has just exited.
      }
  }, 5);
  await runInFence('surveyFile', task, limits).finally(() => clearInterval(looking));
  return seen;
}

test('work in a fence ends well, says how far it is, and how much memory it took', async () => {
  const heard: [number, number][] = [];
  const { peakMb } = await runInFence('surveyFile', task, ROOMY, undefined, (done, total) =>
    heard.push([done, total]),
  );
  expect(surveySchema.parse(JSON.parse(readFileSync(task.out, 'utf8'))).pages).toHaveLength(300);
  expect(heard.at(-1)).toEqual([300, 300]);
  expect(peakMb).toBeGreaterThan(20);
});

test.each([
  ['a file that is none', { ...task, file: process.execPath }, ROOMY, 'not-a-pdf'],
  ['a file that is not there', { ...task, file: join(folder, 'gone') }, ROOMY, 'unforeseen'],
  // /dev/full takes no byte, as a disk that is full.
  ['a full disk', { ...task, out: '/dev/full' }, ROOMY, 'disk-full'],
  ['too long', task, { seconds: 0.05, mb: 2048 }, 'too-slow'],
  ['too much memory', task, { seconds: 60, mb: 8 }, 'too-much-memory'],
])('%s: the trouble is named', async (_, work, limits, code) => {
  await expect(runInFence('surveyFile', work, limits)).rejects.toMatchObject({ trouble: { code } });
});

test('a process runs under the kernel’s limits, and as the user that it is to have; what it last said goes with the trouble', async () => {
  // Where the program lies in a directory that no other user can enter, there is none.
  const { uid = process.getuid!() } = fenceUser();
  const seen = await whileItRuns(
    (pid) => readFileSync(`/proc/${pid}/limits`, 'utf8') + readFileSync(`/proc/${pid}/status`, 'utf8'),
  );
  // At first it is the program that sets the limits.
  const last = seen.at(-1);
  for (const limit of ['data size', 'cpu time', 'file size', 'open files'])
    expect(last).toMatch(new RegExp(`Max ${limit}\\s+\\d`));
  expect(last).toMatch(/Max core file size\s+0/);
  expect(last).toMatch(new RegExp(`^Uid:\\s+${uid}\\s`, 'm'));
  await expect(runInFence('noSuchFile', task, ROOMY)).rejects.toMatchObject({
    trouble: { code: 'stopped-early' },
    stderr: expect.stringContaining('noSuchFile') as string,
  });
});

test('work is cancelled at once', async () => {
  const controller = new AbortController();
  const work = runInFence('surveyFile', task, ROOMY, controller.signal);
  setTimeout(() => controller.abort(), 50);
  await expect(work).rejects.toMatchObject({ trouble: { code: 'cancelled' } });
});

test('a process that stands by takes one task; two at once get one each', async () => {
  keepReady('surveyFile');
  const outs = ['1', '2', '3'].map((name) => join(folder, `${name}.json`));
  await Promise.all(outs.map((out) => runInFence('surveyFile', { ...task, out }, ROOMY)));
  for (const out of outs)
    expect(surveySchema.safeParse(JSON.parse(readFileSync(out, 'utf8'))).success).toBe(true);
});

/** The processes of this kind that are there now. */
const there = () =>
  spawnSync('pgrep', ['-P', String(process.pid), '-f', 'surveyFile'], { encoding: 'utf8' })
    .stdout.split('\n')
    .filter(Boolean);

test('a process goes on with the next task; one whose task ended badly does not', async () => {
  const row = { ...ROOMY, row: true } as const;
  const seen: string[][] = [];
  for (const name of ['4', '5']) {
    const out = join(folder, `${name}.json`);
    await runInFence('surveyFile', { ...task, out }, row);
    expect(surveySchema.safeParse(JSON.parse(readFileSync(out, 'utf8'))).success).toBe(true);
    seen.push(there());
  }
  expect(seen[0]).toHaveLength(1);
  expect(seen[1]).toEqual(seen[0]);
  await expect(runInFence('surveyFile', { ...task, file: process.execPath }, row)).rejects.toMatchObject({
    trouble: { code: 'not-a-pdf' },
  });
  await expect.poll(there).not.toContain(seen[0]![0]);
  await expect(runInFence('surveyFile', task, { ...row, seconds: 0.05 })).rejects.toMatchObject({
    trouble: { code: 'too-slow' },
  });
});

test('what nobody waits for leaves the cores to all else', async () => {
  // proc(5): the nice value is the 19th field, the 17th after the name.
  const nice = (pid: number | string) =>
    Number(readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')[16]);
  expect((await whileItRuns(nice)).at(-1)).toBeLessThan(19);
  expect((await whileItRuns(nice, { ...ROOMY, last: true })).at(-1)).toBe(19);
});

test('a process for one task alone is gone after it', async () => {
  await runInFence('surveyFile', task, { ...ROOMY, once: true });
  await expect.poll(there).toEqual([]);
});

test('a process that reads files from outside does not know where the database is', async () => {
  process.env.DATABASE_URL ??= 'postgres://nowhere';
  const known = await whileItRuns((pid) => readFileSync(`/proc/${pid}/environ`, 'utf8'));
  expect(known.length).toBeGreaterThan(0);
  for (const env of known) {
    expect(env).toContain('PATH=');
    expect(env).not.toContain('DATABASE_URL');
  }
});

/** The cores that a process may run on, as util-linux tells them. */
const coresOf = (pid: string | number) =>
  spawnSync('taskset', ['-cp', String(pid)], { encoding: 'utf8' })
    .stdout.split(': ')[1]
    ?.trim();

test('rows keep to the core of their worker; what is done by itself may run on all, in a process that had rows and in one that starts meanwhile', async () => {
  const all = coresOf(process.pid)!;
  const own = numbersOf(all)[1]?.toString() ?? all;
  await runInFence('surveyFile', task, { ...ROOMY, row: true });
  expect(there().map(coresOf)).toEqual([own]);
  expect((await whileItRuns(coresOf)).at(-1)).toBe(all);

  // As a worker is while it has a row.
  keepToOwnCore(process.pid, true);
  expect(coresOf(process.pid)).toBe(own);
  dismissStandby();
  const during = await whileItRuns(coresOf);
  keepToOwnCore(process.pid, false);
  expect(during.at(-1)).toBe(all);
  expect(coresOf(process.pid)).toBe(all);
  expect(numbersOf('0-2,5')).toEqual([0, 1, 2, 5]);
});
