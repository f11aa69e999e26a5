import { closeDb } from '$lib/server/db';
import { closeQueue } from '$lib/server/queue';

// Without this, open connections would keep a stopped server from ending.
process.on('sveltekit:shutdown', async () => {
  await closeQueue();
  await closeDb();
});
