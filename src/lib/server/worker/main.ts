import { closeDb } from '../db';
import { forsakenIntakes } from '../intakes';
import { dismissStandby, keepReady } from '../fence';
import { closeQueue, enqueue, queue, type QueueName } from '../queue';
import { lookIntoFolders } from '../dropFolders';
import { waitingOutputs } from '../outputs';
import { forgetOldRuns, waitingRuns } from '../runs';
import { deliverScans } from '../standins/scanner';
import { making, makeOutput } from './output';
import { waitingMeasures } from '../measures';
import { measure, measuring } from './measure';
import { makeRuns, running } from './run';
import { surveyIntake } from './survey';

const POLL_SECONDS = 0.5;
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
await take('run', makeRuns);

/** Work whose worker died before this one came, or while it runs, is handed out again; twice does no harm, only one worker gets it. */
const handedOut = new Map<string, number>();
async function lookAfter(): Promise<void> {
  const waiting = [
    ...(await waitingOutputs()).map((id) => ['output', id] as const),
    ...(await waitingMeasures()).map((sha256) => ['measure', sha256] as const),
    ...(await forsakenIntakes()).map((id) => ['survey', id] as const),
    ...(await waitingRuns()).map((id) => ['run', id] as const),
  ];
  for (const [name, id] of waiting) {
    if (Date.now() - (handedOut.get(id) ?? 0) < HAND_OUT_AGAIN_MS) continue;
    handedOut.set(id, Date.now());
    await enqueue(name, id);
  }
}
await lookAfter();
const tidy = () => void forgetOldRuns().catch((error) => console.error('worker:', error));
tidy();
const tidying = setInterval(tidy, TIDY_MS);
const looking = setInterval(
  () => void lookAfter().catch((error) => console.error('worker:', error)),
  LOOK_AFTER_MS,
);

async function look(): Promise<void> {
  await deliverScans();
  for (const id of await lookIntoFolders()) {
    handedOut.set(id, Date.now());
    await enqueue('run', id);
  }
}
/** One look into the drop folders after the other. */
let lookingInto: Promise<void> | undefined;
const folders = setInterval(() => {
  lookingInto ??= look()
    .catch((error) => console.error('drop folders:', error))
    .finally(() => (lookingInto = undefined));
}, LOOK_INTO_FOLDERS_MS);

let stopping = false;
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  clearInterval(looking);
  clearInterval(tidying);
  clearInterval(folders);
  await lookingInto;
  const mine = [...making.keys()];
  const mineToo = [...measuring.keys()];
  const myRuns = [...running.keys()];
  for (const controller of [...making.values(), ...measuring.values(), ...running.values()])
    controller.abort();
  await waitingOutputs(mine);
  await waitingMeasures(mineToo);
  await waitingRuns(myRuns);
  dismissStandby();
  await closeQueue();
  await closeDb();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
console.log('worker: ready');
