import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { canBeProved } from '../../core/finish/intended';
import { writeWork } from '../../pdf/write/writeOutput';
import { HandOverError } from '../handOverError';
import { writeFile, writePdfFiles } from '../pdfFiles';
import { proved } from '../proved';
import type { OutputMaker } from './outputMaker';

export const sheets: OutputMaker<'sheets'> = {
  async write(work, output, parts, job) {
    const written = await writePdfFiles(work, output, parts, job);
    const { docket, plan } = work;
    if (!docket.prove || !plan || !canBeProved(docket.scheme)) return written;
    // The very bytes that go out; of several files, those that they would be in one.
    const [only, ...more] = written;
    const isWhole = only !== undefined && !more.length;
    if (!isWhole) await writeFile('whole', job, (context) => writeWork(work, { kind: 'sheets' }, context));
    const path = join(job.folder, isWhole ? only.file : 'whole');
    const { outcome } = await proved(work, await readFile(path), job);
    if (!isWhole) await rm(path);
    const [first] = outcome.named;
    if (!outcome.holds && !job.despite)
      throw new HandOverError({
        code: 'proof-fails',
        data: { wrong: outcome.wrong, pages: outcome.pages, first: first?.says ?? '' },
      });
    return written.map((each) => ({ ...each, facts: { ...each.facts, proof: outcome } }));
  },
};
