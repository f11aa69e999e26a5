import { join } from 'node:path';
import { transaction } from '../db';
import { FenceError } from '../fence';
import { beginOutput, failOutput, finishOutput, tendOutput } from '../outputs';
import { fetchSources, makeFiles, storeFiles } from './makeFiles';
import { troubleOf } from '../trouble';
import { inWorkFolder } from '../workFolder';
import type { OutputState } from '../../wire/told';

const TEND_EVERY_MS = 500;

/** Outputs that this process is making. */
export const making = new Map<string, AbortController>();

/** Makes an output in a fence and stores it. A cancelled one leaves nothing behind. */
export async function makeOutput(id: string): Promise<void> {
  const begun = await beginOutput(id);
  if (!begun) return;
  const controller = new AbortController();
  making.set(id, controller);
  let progress: [doing: OutputState['doing'], done: number, total: number] = ['writing', 0, 0];
  const tend = setInterval(async () => {
    if (!(await tendOutput(id, ...progress))) controller.abort();
  }, TEND_EVERY_MS);
  try {
    await inWorkFolder(async (folder) => {
      const { docket, spec: output, despite } = begun;
      const files = await fetchSources(docket, folder);
      const into = join(folder, 'made');
      const made = await makeFiles({ docket, output, despite }, files, into, controller.signal, (...how) => {
        progress = how;
      });
      await tendOutput(id, ...progress);
      await transaction(async (client) => {
        if (!(await finishOutput(client, id, await storeFiles(client, into, made))))
          throw new FenceError({ code: 'cancelled' });
      });
    });
  } catch (error) {
    const trouble = troubleOf(error);
    if (!trouble) throw error;
    if (trouble.code !== 'cancelled') await failOutput(id, trouble);
  } finally {
    clearInterval(tend);
    making.delete(id);
  }
}
