/** What is new takes up no more room than this, in MB: left to itself it grows for hours under steady work. */
const NEW = '--max-semi-space-size=4';

/** How Node.js runs the web server. */
export const WEB = [NEW, 'build/index.js'];

/** How Node.js runs a worker: work is shared out among workers, and threads that help one of them only take from the others. */
export const WORKER = ['--single-threaded', NEW, 'build/tools/worker/main.mjs'];

/** What the n-th of the workers that are started together is told, from 0. */
export const workerEnv = (n) => ({ FOLDER_WORKER: String(n) });
