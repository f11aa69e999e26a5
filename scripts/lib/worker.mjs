/** How Node.js runs a worker: work is shared out among workers, and threads that help one of them only take from the others. */
export const WORKER = ['--single-threaded', 'build/tools/worker/main.mjs'];

/** What the n-th of the workers that are started together is told, from 0. */
export const workerEnv = (n) => ({ FOLDER_WORKER: String(n) });
