import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** Numbers of a list as Linux writes it: `0-2,5` are 0, 1, 2 and 5. */
export const numbersOf = (list: string): number[] =>
  list.split(',').flatMap((part) => {
    const [from, to = from] = part.split('-').map(Number);
    return Array.from({ length: to! - from! + 1 }, (_, n) => from! + n);
  });

/** The cores that this process may run on, as Linux writes them; undefined on other systems. */
function allowedCores(): string | undefined {
  try {
    return /^Cpus_allowed_list:\s*(\S+)$/m.exec(readFileSync('/proc/self/status', 'utf8'))?.[1];
  } catch {
    return undefined;
  }
}
const all = allowedCores();
/** The core of the worker that is the n-th of those started together, from 0, as the start command says. */
const { FOLDER_WORKER } = process.env;
const own = all && FOLDER_WORKER ? numbersOf(all)[Number(FOLDER_WORKER)] : undefined;

/**
 * Keeps a process to this worker's own core, or lets it run on all again. Work on a file goes from process to process, one
 * at a time; left alone, the steps of two workers meet on one core again and again while another has nothing to do. Where
 * the worker has no core of its own (none is told, there are fewer than workers, no Linux) nothing changes.
 */
export function keepToOwnCore(pid: number, kept: boolean): void {
  if (own === undefined) return;
  // Waited for, so that what is started next begins where it should. It ended meanwhile, or the system forbids it: it runs as it did.
  spawnSync('taskset', ['-acp', kept ? String(own) : all!, String(pid)], { stdio: 'ignore' });
}
