/**
 * What is new takes up no more than 4 MB, and garbage is looked for when there is twice as much as was in use the last time:
 * left to itself the engine lets both grow for hours under steady work.
 */
const HEAP = ['--max-semi-space-size=4', '--heap-growing-percent=100'];

/** How Node.js runs the web server. */
export const WEB = [...HEAP, 'build/index.js'];

/**
 * How Node.js runs a worker: work is shared out among workers, and threads that help one of them only take from the others.
 * Compiling stands in the way of the work itself then, so code is looked at for it less often than by default.
 */
export const WORKER = [
  '--single-threaded',
  '--interrupt-budget=600000',
  ...HEAP,
  'build/tools/worker/main.mjs',
];

/** What the n-th of the workers that are started together is told, from 0. */
export const workerEnv = (n) => ({ FOLDER_WORKER: String(n) });
