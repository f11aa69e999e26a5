import { closeSync, openSync, writeSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import type { Docket, Output } from '../../core/docket/docket';
import type { Surveys } from '../../core/pages/survey';
import { writeOutput } from '../../pdf/writeOutput';
import { runFenced } from './protocol';
import { warmUp } from './warmUp';

/** Writes one output of a docket to `out`; `files` are the sources' paths by SHA-256. */
export interface OutputTask {
  docket: Docket;
  output: Output;
  surveys: Surveys;
  files: Record<string, string>;
  out: string;
  at: string;
}

await runFenced<OutputTask>(
  async ({ docket, output, surveys, files, out, at }, onProgress) => {
    const file = openSync(out, 'w');
    try {
      await writeOutput(docket, output, {
        surveys,
        read: (source) => readFile(files[source]!),
        // Nothing else waits for this process: writing at once is quickest.
        sink: (chunk) => {
          for (let at = 0; at < chunk.length;) at += writeSync(file, chunk, at);
        },
        at: new Date(at),
        onProgress,
      });
    } finally {
      closeSync(file);
    }
  },
  process.env.FOLDER_STANDBY ? warmUp() : undefined,
);
