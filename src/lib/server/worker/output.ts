import { createReadStream } from 'node:fs';
import { mkdir, mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sourcesOf } from '../../core/docket/docket';
import { blobToFile, storeBlob } from '../blobs';
import { transaction } from '../db';
import { FenceError, runInFence } from '../fence';
import type { CheckTask } from '../fenced/checkOutputFiles';
import { MADE, type MadeFile } from '../fenced/made';
import type { OutputTask } from '../fenced/writeOutputFile';
import { beginOutput, failOutput, finishOutput, tendOutput, type OutputRecord } from '../outputs';
import { blobOfSource, surveysOf } from '../sources';

const LIMITS = { seconds: 1800, mb: 4096 };
const TEND_EVERY_MS = 500;

/** Outputs that this process is making. */
export const making = new Map<string, AbortController>();

/** Makes an output in a fence and stores it. A cancelled one leaves nothing behind. */
export async function makeOutput(id: string): Promise<void> {
  const begun = await beginOutput(id);
  if (!begun) return;
  const controller = new AbortController();
  making.set(id, controller);
  const folder = await mkdtemp(join(tmpdir(), 'folder-output-'));
  let progress: [doing: OutputRecord['doing'], done: number, total: number] = ['writing', 0, 0];
  const tend = setInterval(async () => {
    if (!(await tendOutput(id, ...progress))) controller.abort();
  }, TEND_EVERY_MS);
  try {
    const { docket, spec, despite } = begun;
    const files: Record<string, string> = {};
    for (const source of sourcesOf(docket)) {
      const blob = await blobOfSource(source);
      if (!blob) continue;
      files[source] = join(folder, `${source}.pdf`);
      await blobToFile(blob.id, files[source]);
    }
    const made = join(folder, 'made');
    await mkdir(made);
    const surveys = await surveysOf(Object.keys(files));
    const asked = { docket, output: spec, surveys, folder: made };
    const task: OutputTask = {
      ...asked,
      files,
      at: new Date().toISOString(),
      ...(despite ? { despite } : {}),
    };
    await runInFence('writeOutputFile', task, LIMITS, controller.signal, (done, total) => {
      progress = ['writing', done, total];
    });
    // Read again by a process that did not write it: what is not as it was asked goes to nobody.
    progress = ['checking', 0, 0];
    await runInFence(
      'checkOutputFiles',
      asked satisfies CheckTask,
      LIMITS,
      controller.signal,
      (done, total) => {
        progress = ['checking', done, total];
      },
    );
    await tendOutput(id, ...progress);
    const list = JSON.parse(await readFile(join(made, MADE), 'utf8')) as MadeFile[];
    await transaction(async (client) => {
      const stored: { blobId: string; made: MadeFile }[] = [];
      for (const file of list) {
        const bytes = createReadStream(join(made, file.file), { highWaterMark: 1 << 20 });
        stored.push({ blobId: (await storeBlob(client, bytes)).id, made: file });
      }
      if (!(await finishOutput(client, id, stored))) throw new FenceError({ code: 'cancelled' });
    });
  } catch (error) {
    if (!(error instanceof FenceError)) throw error;
    if (error.trouble.code !== 'cancelled') await failOutput(id, error.trouble);
  } finally {
    clearInterval(tend);
    making.delete(id);
    await rm(folder, { recursive: true, force: true });
  }
}
