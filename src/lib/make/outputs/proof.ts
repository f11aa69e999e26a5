import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { writePlan, writeWork } from '../../pdf/write/writeOutput';
import { proofPlan } from '../../words/proofReport';
import { writeFile, writeParts } from '../pdfFiles';
import { proved } from '../proved';
import type { OutputMaker } from './outputMaker';

export const proof: OutputMaker<'proof'> = {
  async write(work, output, parts, job) {
    // The very bytes of the sheets: the same job is always written alike.
    await writeFile('sheets', job, (context) => writeWork(work, { kind: 'sheets' }, context));
    const path = join(job.folder, 'sheets');
    const { proof, outcome } = await proved(work, await readFile(path), job, output.error);
    await rm(path);
    const report = proofPlan(proof, work, output.error, job.at);
    const written = await writeParts(parts, { ...job, onProgress: undefined }, (context) =>
      writePlan(work, output, report, context),
    );
    return written.map((each) => ({ ...each, facts: { proof: outcome } }));
  },
};
