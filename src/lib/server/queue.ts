import PgBoss from 'pg-boss';
import { db, onceThere, transaction } from './db';
import { log } from './log';

/** Kinds of work that are handed out over the queue. */
export const QUEUES = ['survey', 'measure', 'output'] as const;
export type QueueName = (typeof QUEUES)[number];
export const isQueue = (name: string): name is QueueName => QUEUES.some((each) => each === name);

/** On this channel workers are told of which queue a piece waits, or by the database what else does: they need not ask for it. */
export const WAKE = 'folder_work';

/** A message is given up after this; what it is about is handed out again by whoever looks after the work. */
const EXPIRE_SECONDS = 6 * 3600;

let started: Promise<PgBoss> | undefined;
let closing = false;

/**
 * The queue, in a schema of its own in the same database. It only hands out: who may work at a piece is decided by its claim,
 * so a message that is delivered twice does no harm, and one that is lost is sent again.
 */
export function queue(): Promise<PgBoss> {
  closing = false;
  started ??= start().catch((error) => {
    // The next one who asks tries again.
    started = undefined;
    throw error;
  });
  return started;
}

/** While the database is away the queue waits: it has calls that nobody catches, and they would end the process. */
const executeSql = (text: string, values: unknown[]): Promise<{ rows: unknown[] }> =>
  onceThere(
    () => db().query(text, values),
    () => !closing,
  );

/** One process after the other: two that make the same queues at once lock each other out. */
const start = (): Promise<PgBoss> =>
  transaction(async (client) => {
    await client.query("select pg_advisory_xact_lock(hashtextextended('queue', 12))");
    const boss = new PgBoss({ db: { executeSql }, schema: 'queue', schedule: false });
    boss.on('error', (error) => log.warn({ reason: error.message }, 'the queue met an error'));
    await boss.start();
    for (const name of QUEUES) {
      // Short: at most one message waits for each piece, however often it is sent.
      const options = { name, policy: 'short', retryLimit: 0, expireInSeconds: EXPIRE_SECONDS } as const;
      await boss.createQueue(name, options);
      await boss.updateQueue(name, options);
    }
    return boss;
  });

/** Hands a piece of work to whichever worker is free. Where that fails, whoever looks after the work does it a little later. */
export function enqueue(name: QueueName, id: string): void {
  void queue()
    .then((boss) => boss.send(name, { id }, { singletonKey: id }))
    .then(() => db().query('select pg_notify($1, $2)', [WAKE, name]))
    .catch((error: Error) => log.warn({ reason: error.message }, 'work could not be handed out at once'));
}

export async function closeQueue(): Promise<void> {
  const boss = await started?.catch(() => undefined);
  started = undefined;
  closing = true;
  await boss?.stop({ graceful: false, close: false });
}
