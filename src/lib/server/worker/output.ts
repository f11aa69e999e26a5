import { createReadStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sourcesOf } from '../../core/docket/docket';
import { blobToFile, storeBlob } from '../blobs';
import { transaction } from '../db';
import { FenceError, runInFence } from '../fence';
import type { OutputTask } from '../fenced/writeOutputFile';
import { beginOutput, failOutput, finishOutput, tendOutput } from '../outputs';
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
  let progress: [number, number] = [0, 0];
  const tend = setInterval(async () => {
    if (!(await tendOutput(id, ...progress))) controller.abort();
  }, TEND_EVERY_MS);
  try {
    const { docket, spec } = begun;
    const files: Record<string, string> = {};
    for (const source of sourcesOf(docket)) {
      const blob = await blobOfSource(source);
      if (!blob) continue;
      files[source] = join(folder, `${source}.pdf`);
      await blobToFile(blob.id, files[source]);
    }
    const task: OutputTask = {
      docket,
      output: spec,
      surveys: await surveysOf(Object.keys(files)),
      files,
      out: join(folder, 'out.pdf'),
      at: new Date().toISOString(),
    };
    await runInFence(
      'writeOutputFile',
      task,
      LIMITS,
      controller.signal,
      (done, total) => (progress = [done, total]),
    );
    await tendOutput(id, ...progress);
    await transaction(async (client) => {
      const blob = await storeBlob(client, createReadStream(task.out, { highWaterMark: 1 << 20 }));
      if (!(await finishOutput(client, id, blob.id))) throw new FenceError({ code: 'cancelled' });
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
