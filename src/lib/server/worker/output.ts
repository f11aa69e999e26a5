import { join } from 'node:path';
import { endClaim } from '../claims';
import { db, transaction } from '../db';
import { finishOutput, orderedOutput } from '../outputs';
import { inWorkFolder } from '../workFolder';
import { fetchSources, makeFiles, StoredFiles } from './makeFiles';
import { Lost, type Worked } from './workAt';

/** Makes an output in a fence and stores it. A cancelled one leaves nothing behind. */
export const outputWork: Worked = {
  kind: 'output',
  async carryOut(claim, now, signal) {
    const ordered = await orderedOutput(claim);
    if (!ordered) throw new Lost();
    await inWorkFolder(async (folder) => {
      const { docket, spec: output, despite, proved, language } = ordered;
      const files = await fetchSources(docket, folder);
      const into = join(folder, 'made');
      // They are stored while they are read again; what does not hold then belongs to nothing, and goes.
      const stored = new StoredFiles();
      try {
        await makeFiles(
          { docket, output, despite, proved, language },
          files,
          into,
          signal,
          (doing, done, total) => Object.assign(now, { doing, done, total }),
          { meanwhile: (made) => stored.store(into, made, signal) },
        );
        await transaction(async (client) => {
          if (!(await finishOutput(client, claim, await stored.seal(client)))) throw new Lost();
        });
      } catch (error) {
        await stored.drop();
        throw error;
      }
    });
  },
  fail: (claim, trouble) => endClaim(db(), claim, 'failed', trouble),
};
