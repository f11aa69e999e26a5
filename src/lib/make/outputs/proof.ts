import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { holds, standsOf } from '../../core/finish/proof';
import { writePlan, writeWork } from '../../pdf/write/writeOutput';
import { sayProof } from '../../words/proof';
import { proofPlan } from '../../words/proofReport';
import { writeFile, writeParts } from '../pdfFiles';
import { proveSheets } from '../prove';
import type { OutputMaker } from './outputMaker';

/** What is wrong that is told on the card; the report has all of it. */
const MOST_NAMED = 30;

export const proof: OutputMaker<'proof'> = {
  async write(work, output, parts, job) {
    // The very bytes of the sheets: the same job is always written alike.
    await writeFile('sheets', job, (context) => writeWork(work, { kind: 'sheets' }, context));
    const path = join(job.folder, 'sheets');
    const found = await proveSheets(work, await readFile(path), job, { withEdges: true });
    await rm(path);
    const { list, plan, docket } = work;
    const report = proofPlan(found, work, output.error, job.at);
    const written = await writeParts(parts, { ...job, onProgress: undefined }, (context) =>
      writePlan(work, output, report, context),
    );
    const wrong = found.pages.filter(({ verdict }) => verdict.is !== 'same').length;
    const weak = (found.edges ?? []).filter((edge) => standsOf(edge) < output.error).length;
    const said = sayProof(found, { list, plan: plan!, scheme: docket.scheme }, docket.unit);
    const named = said.wrong.slice(0, MOST_NAMED);
    const facts = { proof: { holds: holds(found), pages: found.pages.length, wrong, weak, named } };
    return written.map((each) => ({ ...each, facts }));
  },
};
