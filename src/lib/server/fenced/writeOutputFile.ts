import { writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Docket } from '../../core/docket/docket';
import type { Output } from '../../core/handover/output';
import type { Surveys } from '../../core/pages/survey';
import { handOver } from './handOver';
import { MADE } from './made';
import { runFenced } from './protocol';
import { warmUp } from './warmUp';

/** Makes the files of one output of a docket in `folder`, and a list of them there; `files` are the sources' paths by SHA-256. */
export interface OutputTask {
  docket: Docket;
  output: Output;
  surveys: Surveys;
  files: Record<string, string>;
  folder: string;
  at: string;
  despite?: string | undefined;
}

await runFenced<OutputTask>(
  async ({ docket, output, surveys, files, folder, at, despite }, onProgress) => {
    const made = await handOver(docket, output, {
      surveys,
      read: (source) => readFile(files[source]!),
      folder,
      at: new Date(at),
      despite,
      onProgress,
    });
    writeFileSync(join(folder, MADE), JSON.stringify(made));
  },
  process.env.FOLDER_STANDBY ? warmUp() : undefined,
);
