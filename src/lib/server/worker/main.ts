import { writeFileSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { isAway } from '../away';
import { dropAbandoned } from '../blobs';
import { allWaiting, releaseSilent } from '../claims';
import { closeDb, listen, onceThere } from '../db';
import { lookIntoFolders, watchedFolders } from '../dropFolders';
import { forgetSessions } from '../people';
import { forgetWindows, isSomebodyThere } from '../presence';
import { tidyNear } from '../nearFiles';
import { reportFault } from '../faults';
import { dismissStandby, keepReady } from '../fence';
import { log } from '../log';
import { closeQueue, enqueue, isQueue, queue, QUEUES, WAKE, type QueueName } from '../queue';
import { canWait, forgetOldRuns } from '../runs';
import { warmUpSurveys } from '../sources';
import { deliverScans } from '../standins/scanner';
import { forgetWorkers, sayAlive, sayGone } from '../workers';
import { leaveNoWork, sweepWorkFolders } from '../workFolder';
import { measureWork } from './measure';
import { outputWork } from './output';
import { makeRuns } from './run';
import { surveyWork } from './survey';
import { letGoOfAll, tellAll, workOn, type Worked } from './workAt';

/** Workers are woken when there is work; they ask for it so often in case they were not. What waits is told anew when work is looked after. */
const POLL_SECONDS = 30;
const POLL_RUNS_MS = 2000;
const LOOK_AFTER_MS = 3000;
/** Directories say nothing by themselves, least of all those of other machines; where none is watched, the list of folders is asked for. */
const LOOK_INTO_FOLDERS_MS = 700;
const LOOK_FOR_FOLDERS_MS = 5000;
const TIDY_MS = 3_600_000;
/** After so long without anybody or any work, nothing stands by. */
const READY_MS = 60_000;
/** What stands by for whoever has a job open, or just had work done. */
const READY = ['surveyFile', 'writeOutputFile', 'checkOutputFiles'];

/** What is handed out over the queue, and how many pieces of each kind a worker takes at once. */
const WORKED: Record<
  QueueName,
  { worked: Worked; atOnce: number; canWait?: (id: string) => Promise<boolean> }
> = {
  survey: { worked: surveyWork, atOnce: 2 },
  output: { worked: outputWork, atOnce: 1 },
  measure: { worked: measureWork, atOnce: 1, canWait },
};

let stopping = false;
let neededAt = -Infinity;
let isReady = false;
let isWarm = false;

// Whoever saves or looks for something goes first: what is worked here, and what it starts, takes the time that is left.
setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
try {
  // Linux may share time out among sessions, whatever their processes are: then the session itself steps back (sched(7)).
  writeFileSync('/proc/self/autogroup', String(constants.priority.PRIORITY_BELOW_NORMAL));
} catch {
  // Where there is no such thing, the processes alone count.
}

/** Takes work until it is told to stop. Several may run, on one machine or more. */
const boss = await onceThere(queue);
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
          // What can wait, nobody waits for: getting ready would only take the time of a row of files.
          if (!later) beReady();
        },
      ),
    );
    workers.push({ name, id });
  }

/** Warms this process itself up, once there is something to do that with. */
async function getWarm(): Promise<void> {
  if (isWarm) return;
  isWarm = true;
  // What can be told of a survey that cannot be read is told where somebody needs it.
  isWarm = await warmUpSurveys().catch((error) => !isAway(error));
}

/** Has processes stand by from now on, until nobody has needed them for a while. */
function beReady(): void {
  if (process.env.FOLDER_READY === '0' || stopping) return;
  neededAt = performance.now();
  void getWarm();
  isReady = true;
  READY.forEach(keepReady);
}

/** Work whose worker went silent waits again, and whatever waits is handed out: also what was lost on its way to the queue. */
async function lookAfter(): Promise<void> {
  await tellAll();
  await sayAlive();
  await releaseSilent();
  for (const { kind, id } of await allWaiting()) if (isQueue(kind)) enqueue(kind, id);
  if (await isSomebodyThere()) beReady();
  else if (isReady && performance.now() - neededAt > READY_MS) {
    // Once: what a row of files has idle between two of them is its own, and leaves by itself.
    isReady = false;
    dismissStandby();
  }
}

// Somebody who restarts it is there; going on with what nobody caught would not be safe, unless only the database was away.
process.on('unhandledRejection', (error) => {
  if (isAway(error)) log.warn('something was not done: the database is away');
  else void reportFault('the worker', error).finally(() => process.exit(1));
});

interface Again {
  now: () => void;
  stop: () => Promise<void>;
}
/** Does it at once and then every so often, or as soon as it says itself, or sooner when told; one after the other. */
function again(what: string, ms: number, work: () => Promise<number | void>): Again {
  let going: Promise<void> | undefined;
  let timer: NodeJS.Timeout | undefined;
  // Told while it is at it: what it was told of may have come too late for it.
  let once = false;
  const now = (): void => {
    clearTimeout(timer);
    once = !!going;
    going ??= work()
      .catch((error) => {
        if (isAway(error)) log.warn(`${what}: the database is away`);
        else void reportFault(what, error);
      })
      .then((soon) => {
        going = undefined;
        if (!stopping) timer = setTimeout(now, once ? 0 : (soon ?? ms));
      });
  };
  now();
  return {
    now,
    async stop() {
      clearTimeout(timer);
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
  await forgetWorkers();
  await forgetWindows();
  await forgetSessions();
});
const makingRuns = again('recipes on files', POLL_RUNS_MS, () => makeRuns(() => !stopping));
const lookingInto = again('drop folders', LOOK_INTO_FOLDERS_MS, async () => {
  const folders = await watchedFolders();
  if (!folders.length) return LOOK_FOR_FOLDERS_MS;
  if (folders.some(({ scan_every }) => scan_every)) await deliverScans();
  await lookIntoFolders(folders);
});
/** What a word on the channel starts; no word means that some may have been missed. */
const WOKEN: Record<string, () => void> = {
  run: makingRuns.now,
  folder: lookingInto.now,
  person: beReady,
};
const sleep = listen(WAKE, (word) => {
  for (const { name, id } of workers) if (!word || word === name) boss.notifyWorker(id);
  for (const [name, begin] of Object.entries(WOKEN))
    if (word === name || (!word && begin !== beReady)) begin();
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
