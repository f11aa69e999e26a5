import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { FenceError, runInFence, type FenceLimits } from './fence';
import { nearToFile } from './nearFiles';
import { Problem } from './problem';
import { inWorkFolder } from './workFolder';

/** Where a task for a fenced process that makes a file of a file has both. */
export interface FileTask {
  file: string;
  out: string;
}

/** What a fenced process makes of a blob; `task` is what it is told besides. Throws Problem 422 if it ends badly. */
export async function makeOfBlob<Task extends FileTask>(
  blobId: string,
  name: string,
  task: Omit<Task, keyof FileTask>,
  limits: FenceLimits,
): Promise<Buffer> {
  return inWorkFolder(async (folder) => {
    const files: FileTask = { file: join(folder, 'in.pdf'), out: join(folder, 'out') };
    await nearToFile(blobId, files.file);
    await runInFence(name, { ...task, ...files }, limits).catch((error) => {
      throw error instanceof FenceError ? new Problem(422, error.trouble) : error;
    });
    return readFile(files.out);
  });
}
