import { readFile, writeFile } from 'node:fs/promises';
import { hideInks } from '../../pdf/write/hideInks';
import { runFenced } from './protocol';

/** Writes a copy of the PDF at `file`, for viewing, in which some inks print nothing. */
export interface HideInksTask {
  file: string;
  hidden: readonly string[];
  out: string;
}

await runFenced<HideInksTask>(async ({ file, hidden, out }) => {
  await writeFile(out, await hideInks(await readFile(file), new Set(hidden)));
});
