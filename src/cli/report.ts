import type { Io } from './call';

/** What came of one file or docket. */
interface Result {
  source?: string;
  written: string[];
  findings: string[];
}

/** Says what was written: a path a line, or all as JSON. */
export function report(results: readonly Result[], { json, io }: { json: boolean; io: Io }): void {
  if (json) io.out(`${JSON.stringify(results, null, 2)}\n`);
  else for (const { written } of results) for (const path of written) io.out(`${path}\n`);
}

/** Says how far the work is, where somebody sits before it. */
export function progress(what: string, io: Io): (done: number, total: number) => void {
  if (!io.isWatched) return () => undefined;
  return (done, total) => io.err(`\r${what}: ${done} of ${total}\x1b[K${done === total ? '\n' : ''}`);
}
