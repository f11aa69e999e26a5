import PgBoss from 'pg-boss';
import { transaction } from './db';

export const QUEUES = ['survey', 'measure', 'output'] as const;
export type QueueName = (typeof QUEUES)[number];

let started: Promise<PgBoss> | undefined;

/** The queue, in a schema of its own in the same database. */
export function queue(): Promise<PgBoss> {
  started ??= start().catch((error) => {
    // The next one who asks tries again.
    started = undefined;
    throw error;
  });
  return started;
}

/** One process after the other: two that make the same queues at once lock each other out. */
const start = (): Promise<PgBoss> =>
  transaction(async (client) => {
    await client.query("select pg_advisory_xact_lock(hashtextextended('queue', 12))");
    const boss = new PgBoss({ connectionString: process.env.DATABASE_URL!, schema: 'queue', max: 4 });
    boss.on('error', (error) => console.error('queue:', error.message));
    await boss.start();
    for (const name of QUEUES)
      await boss.createQueue(name, { name, policy: 'standard', retryLimit: 0, expireInSeconds: 3600 });
    return boss;
  });

/** Hands work to whichever worker is free; `id` names the row that says what to do. */
export async function enqueue(name: QueueName, id: string): Promise<void> {
  await (await queue()).send(name, { id });
}

export async function closeQueue(): Promise<void> {
  const boss = await started?.catch(() => undefined);
  started = undefined;
  await boss?.stop({ graceful: false, close: true });
}
