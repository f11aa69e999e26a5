import { closeDb } from '../db';
import { forsakenIntakes } from '../intakes';
import { dismissStandby, keepReady } from '../fence';
import { closeQueue, enqueue, queue, type QueueName } from '../queue';
import { lookIntoFolders } from '../dropFolders';
import { waitingOutputs } from '../outputs';
import { forgetOldRuns, putBackRuns } from '../runs';
import { deliverScans } from '../standins/scanner';
import { making, makeOutput } from './output';
import { waitingMeasures } from '../measures';
import { measure, measuring } from './measure';
import { makeRuns, running } from './run';
import { surveyIntake } from './survey';
import { leaveNoWork, sweepWorkFolders } from '../workFolder';

const POLL_SECONDS = 0.5;
const POLL_RUNS_MS = 250;
const LOOK_AFTER_MS = 3000;
const HAND_OUT_AGAIN_MS = 20_000;
const LOOK_INTO_FOLDERS_MS = 700;
const TIDY_MS = 3_600_000;

/** Takes work off the queue until it is told to stop. Several may run, on one machine or more. */
const boss = await queue();
keepReady('surveyFile');
keepReady('writeOutputFile');
keepReady('checkOutputFiles');
const take = (name: QueueName, work: (id: string) => Promise<void>) =>
  boss.work<{ id: string }>(name, { pollingIntervalSeconds: POLL_SECONDS, batchSize: 1 }, async ([job]) => {
    try {
      if (job) await work(job.data.id);
    } catch (error) {
      console.error(`${name}:`, error);
      throw error;
    }
  });
await take('survey', surveyIntake);
await take('survey', surveyIntake);
await take('output', makeOutput);
await take('measure', measure);

/** Work whose worker died before this one came, or while it runs, is handed out again; twice does no harm, only one worker gets it. */
const handedOut = new Map<string, number>();
async function lookAfter(): Promise<void> {
  await putBackRuns();
  const waiting = [
    ...(await waitingOutputs()).map((id) => ['output', id] as const),
    ...(await waitingMeasures()).map((sha256) => ['measure', sha256] as const),
    ...(await forsakenIntakes()).map((id) => ['survey', id] as const),
  ];
  for (const [name, id] of waiting) {
    if (Date.now() - (handedOut.get(id) ?? 0) < HAND_OUT_AGAIN_MS) continue;
    handedOut.set(id, Date.now());
    await enqueue(name, id);
  }
}

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
      .catch((error) => console.error(`${what}:`, error))
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
const lookingAfter = again('worker', LOOK_AFTER_MS, lookAfter);
const tidying = again('worker', TIDY_MS, async () => {
  await forgetOldRuns();
  await sweepWorkFolders();
});
/** Taken from their own list, the oldest first, and not off the queue. */
const makingRuns = again('runs', POLL_RUNS_MS, () => makeRuns(() => !stopping));
const lookingInto = again('drop folders', LOOK_INTO_FOLDERS_MS, async () => {
  await deliverScans();
  await lookIntoFolders();
  makingRuns.now();
});

async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  await Promise.all([lookingAfter, tidying, lookingInto].map((each) => each.stop()));
  const mine = [...making.keys()];
  const mineToo = [...measuring.keys()];
  const myRuns = [...running.keys()];
  for (const controller of [...making.values(), ...measuring.values(), ...running.values()])
    controller.abort();
  await waitingOutputs(mine);
  await waitingMeasures(mineToo);
  // Nobody else begins a run while this one still has its hands on the files.
  await makingRuns.stop();
  await putBackRuns(myRuns);
  dismissStandby();
  await closeQueue();
  await closeDb();
  await leaveNoWork();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
console.log('worker: ready');
