import { join } from 'node:path';
import { endClaim } from '../claims';
import { db, transaction } from '../db';
import { finishOutput, orderedOutput } from '../outputs';
import { inWorkFolder } from '../workFolder';
import { fetchSources, makeFiles, storeFiles } from './makeFiles';
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
      const made = await makeFiles(
        { docket, output, despite, proved, language },
        files,
        into,
        signal,
        (doing, done, total) => Object.assign(now, { doing, done, total }),
      );
      await transaction(async (client) => {
        if (!(await finishOutput(client, claim, await storeFiles(client, into, made)))) throw new Lost();
      });
    });
  },
  fail: (claim, trouble) => endClaim(db(), claim, 'failed', trouble),
};
