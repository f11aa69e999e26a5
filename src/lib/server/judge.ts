import { createHash } from 'node:crypto';
import { resolve as pathOf } from 'node:path';
import { Worker } from 'node:worker_threads';
import { sourcesOf, type Docket } from '../core/docket/docket';
import type { Db } from './db';
import { Latest } from './latest';
import { spokenNow } from '../words/language';
import { judgeText, type Judged, type ToJudge } from './judged';
import { surveyTexts } from './sources';

/** Jobs of so many characters, surveys included, are worked out in a thread, so that nobody waits for them but who asked. */
const LARGE = 200_000;
/** A thread without work ends after this long. */
const IDLE_MS = 30_000;
/** A job that takes more than this is given up, and the thread with it: the server goes on. */
const MOST_MB = 1024;
const SOURCE = './src/lib/server/threads/judge.ts';

interface Waiting {
  resolve: (judged: Judged) => void;
  reject: (error: Error) => void;
}
let thread: Worker | undefined;
let leaves: NodeJS.Timeout | undefined;
let last = 0;
const waiting = new Map<number, Waiting>();
/** What was judged lately, by all that decides it: what is handed over of a job was judged when it was saved. */
const lately = new Latest<Promise<Judged>>(30);

/** Works a docket out with the surveys that the database has: what the list of jobs shows of it, and what is found. */
export async function judge(docket: Docket, client?: Db): Promise<Judged> {
  return judgedLately(await toJudge(docket, client));
}

/** Does so for what is likely to be asked soon, where it takes long enough to be waited for. */
export async function judgeAhead(docket: Docket): Promise<void> {
  const asked = await toJudge(docket);
  if (asked.text.length >= LARGE) await judgedLately(asked);
}

interface Asked {
  task: ToJudge;
  text: string;
}
async function toJudge(docket: Docket, client?: Db): Promise<Asked> {
  const task: ToJudge = {
    docket: JSON.stringify(docket),
    surveys: await surveyTexts(sourcesOf(docket), client),
    language: spokenNow().language,
  };
  return { task, text: JSON.stringify(task) };
}

function judgedLately({ task, text }: Asked): Promise<Judged> {
  const key = createHash('sha256').update(text).digest('hex');
  const judged = lately.get(key) ?? (text.length < LARGE ? Promise.resolve(judgeText(task)) : inThread(task));
  lately.set(key, judged);
  judged.catch(() => lately.delete(key));
  return judged;
}

function inThread(task: ToJudge): Promise<Judged> {
  clearTimeout(leaves);
  const worker = (thread ??= start());
  const id = ++last;
  return new Promise<Judged>((resolve, reject) => {
    waiting.set(id, { resolve, reject });
    worker.postMessage({ id, task });
  });
}

function start(): Worker {
  const options = { resourceLimits: { maxOldGenerationSizeMb: MOST_MB } };
  // A thread starts from JavaScript: outside of a build it first learns to read the source.
  const made = process.env.FOLDER_BUILT
    ? new Worker(pathOf('build', 'tools', 'threads', 'judge.mjs'), options)
    : new Worker(
        `import('tsx/esm/api').then(({ tsImport }) => tsImport(${JSON.stringify(SOURCE)}, ${JSON.stringify(`file://${pathOf('x')}`)}))`,
        { ...options, eval: true },
      );
  made.unref();
  made.on('message', ({ id, judged, error }: { id: number; judged?: Judged; error?: string }) => {
    const asked = waiting.get(id);
    waiting.delete(id);
    if (judged) asked?.resolve(judged);
    else asked?.reject(new Error(error));
    if (!waiting.size) leaves = setTimeout(() => gone(made), IDLE_MS).unref();
  });
  made.on('error', (error) => gone(made, error));
  made.on('exit', () => gone(made));
  return made;
}

/** The thread ended, or is to: whoever still waits for it is told. */
function gone(made: Worker, error = new Error('the thread that works out jobs ended')): void {
  if (thread !== made) return;
  thread = undefined;
  for (const { reject } of waiting.values()) reject(error);
  waiting.clear();
  void made.terminate();
}
