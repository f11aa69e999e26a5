import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { blobToFile } from './blobs';
import { FenceError, runInFence, type FenceLimits } from './fence';
import { Problem } from './problem';
import { workFolder } from './workFolder';

/** Where a task for a fenced process that makes a file of a file has both. */
export interface FileTask {
  file: string;
  out: string;
}

/** What a fenced process makes of a blob; `task` is what it is told besides. Throws Problem 422 where it ends badly. */
export async function makeOfBlob<Task extends FileTask>(
  blobId: string,
  name: string,
  task: Omit<Task, keyof FileTask>,
  limits: FenceLimits,
): Promise<Buffer> {
  const folder = await workFolder();
  try {
    const files: FileTask = { file: join(folder, 'in.pdf'), out: join(folder, 'out') };
    await blobToFile(blobId, files.file);
    await runInFence(name, { ...task, ...files }, limits);
    return await readFile(files.out);
  } catch (error) {
    if (error instanceof FenceError) throw new Problem(422, error.trouble);
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
