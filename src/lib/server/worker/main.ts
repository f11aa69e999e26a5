import { isAway } from '../away';
import { dropAbandoned } from '../blobs';
import { releaseSilent, waitingFor, WORK_KINDS } from '../claims';
import { closeDb, listen, onceThere } from '../db';
import { lookIntoFolders } from '../dropFolders';
import { forgetSessions } from '../people';
import { forgetWindows } from '../presence';
import { tidyNear } from '../nearFiles';
import { reportFault } from '../faults';
import { dismissStandby, keepReady } from '../fence';
import { log } from '../log';
import { closeQueue, enqueue, queue, QUEUES, WAKE, type QueueName } from '../queue';
import { canWait, forgetOldRuns } from '../runs';
import { deliverScans } from '../standins/scanner';
import { sayAlive, sayGone } from '../workers';
import { leaveNoWork, sweepWorkFolders } from '../workFolder';
import { measureWork } from './measure';
import { outputWork } from './output';
import { makeRuns } from './run';
import { surveyWork } from './survey';
import { letGoOfAll, tellAll, workOn, type Worked } from './workAt';

/** Workers are woken when there is work; they ask for it so often in case they were not. */
const POLL_SECONDS = 2;
const POLL_RUNS_MS = 250;
const LOOK_AFTER_MS = 3000;
const LOOK_INTO_FOLDERS_MS = 700;
const TIDY_MS = 3_600_000;

/** What is handed out over the queue, and how many pieces of each kind a worker takes at once. */
const WORKED: Record<
  QueueName,
  { worked: Worked; atOnce: number; canWait?: (id: string) => Promise<boolean> }
> = {
  survey: { worked: surveyWork, atOnce: 2 },
  output: { worked: outputWork, atOnce: 1 },
  measure: { worked: measureWork, atOnce: 1, canWait },
};

/** Takes work until it is told to stop. Several may run, on one machine or more. */
const boss = await onceThere(queue);
if (process.env.FOLDER_READY !== '0')
  for (const name of ['surveyFile', 'writeOutputFile', 'checkOutputFiles']) keepReady(name);
const workers: { name: QueueName; id: string }[] = [];
for (const name of QUEUES)
  for (let n = 0; n < WORKED[name].atOnce; n++) {
    const id = await onceThere(() =>
      boss.work<{ id: string }>(
        name,
        { pollingIntervalSeconds: POLL_SECONDS, batchSize: 1 },
        async ([job]) => {
          const { worked, canWait: later } = WORKED[name];
          if (!job || (await later?.(job.data.id))) return;
          await workOn(worked, job.data.id);
        },
      ),
    );
    workers.push({ name, id });
  }
const sleep = listen(WAKE, (waits) => {
  for (const { name, id } of workers) if (!waits || waits === name) boss.notifyWorker(id);
});

/** Work whose worker went silent waits again, and whatever waits is handed out: also what was lost on its way to the queue. */
async function lookAfter(): Promise<void> {
  await tellAll();
  await sayAlive();
  for (const kind of WORK_KINDS) await releaseSilent(kind);
  for (const name of QUEUES) for (const id of await waitingFor(name)) enqueue(name, id);
}

// Somebody who restarts it is there; going on with what nobody caught would not be safe, unless only the database was away.
process.on('unhandledRejection', (error) => {
  if (isAway(error)) log.warn('something was not done: the database is away');
  else void reportFault('the worker', error).finally(() => process.exit(1));
});

let stopping = false;
interface Again {
  now: () => void;
  stop: () => Promise<void>;
}
/** Does it at once and then every so often, or sooner when told, one after the other. */
function again(what: string, ms: number, work: () => Promise<void>): Again {
  let going: Promise<void> | undefined;
  const now = () =>
    void (going ??= work()
      .catch((error) =>
        isAway(error) ? log.warn(`${what}: the database is away`) : reportFault(what, error),
      )
      .finally(() => (going = undefined)));
  now();
  const timer = setInterval(now, ms);
  return {
    now,
    async stop() {
      clearInterval(timer);
      await going;
    },
  };
}
const lookingAfter = again('looking after work', LOOK_AFTER_MS, lookAfter);
const tidying = again('tidying up', TIDY_MS, async () => {
  await forgetOldRuns();
  await dropAbandoned();
  await sweepWorkFolders();
  await tidyNear();
  await forgetWindows();
  await forgetSessions();
});
const makingRuns = again('recipes on files', POLL_RUNS_MS, () => makeRuns(() => !stopping));
const lookingInto = again('drop folders', LOOK_INTO_FOLDERS_MS, async () => {
  await deliverScans();
  await lookIntoFolders();
  makingRuns.now();
});

async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  await Promise.all([lookingAfter, tidying, lookingInto].map((each) => each.stop()));
  await letGoOfAll();
  await makingRuns.stop();
  dismissStandby();
  await sleep();
  await sayGone().catch(() => undefined);
  await closeQueue();
  await closeDb();
  await leaveNoWork();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
