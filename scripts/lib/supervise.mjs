import { spawn } from 'node:child_process';
import { once } from 'node:events';

/** A program that ends is started again after this long; twice as long each time, up to the most, until one lasts. */
const FIRST_WAIT_MS = 300;
const MOST_WAIT_MS = 30_000;
/** Who has run for so long starts anew with the shortest wait. */
const LASTS_MS = 30_000;
/** Whoever does not end when asked to is killed after this long. */
const KILL_MS = 8000;

/** Keeps programs running: what ends is started again, with the reason in one line, and longer waits where it ends again and again. */
export class Supervisor {
  #running = new Map();
  #waits = new Set();
  #stopping = false;

  /** Starts a program of Node.js and keeps it running. `name` is what people call it. */
  keep(name, args, env) {
    let wait = FIRST_WAIT_MS;
    const start = () => {
      if (this.#stopping) return;
      const began = Date.now();
      // A process group of its own, so that Ctrl-C reaches it once, from here, in order.
      const program = spawn(process.execPath, args, { stdio: 'inherit', detached: true, env });
      this.#running.set(program, name);
      program.on('error', (error) => console.error(`The ${name} could not be started: ${error.message}`));
      program.on('close', (status, signal) => {
        this.#running.delete(program);
        if (this.#stopping) return;
        if (Date.now() - began > LASTS_MS) wait = FIRST_WAIT_MS;
        const why = signal ? `was ended by ${signal}` : `ended by itself (status ${status})`;
        console.error(`The ${name} ${why}. It is started again in ${(wait / 1000).toFixed(1)} s.`);
        const waiting = setTimeout(() => {
          this.#waits.delete(waiting);
          start();
        }, wait);
        this.#waits.add(waiting);
        wait = Math.min(2 * wait, MOST_WAIT_MS);
      });
    };
    start();
  }

  /** Ends all programs, kindly at first. */
  async stop() {
    this.#stopping = true;
    for (const waiting of this.#waits) clearTimeout(waiting);
    const programs = [...this.#running.keys()];
    const ends = programs.map((program) => once(program, 'close'));
    for (const program of programs) program.kill('SIGTERM');
    const hard = setTimeout(() => programs.forEach((program) => program.kill('SIGKILL')), KILL_MS);
    await Promise.all(ends);
    clearTimeout(hard);
  }
}
