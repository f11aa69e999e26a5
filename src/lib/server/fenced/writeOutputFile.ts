import { open, readFile } from 'node:fs/promises';
import type { Docket, Output } from '../../core/docket/docket';
import type { Surveys } from '../../core/pages/survey';
import { writeOutput } from '../../pdf/writeOutput';
import { runFenced } from './protocol';

/** Writes one output of a docket to `out`; `files` are the sources' paths by SHA-256. */
export interface OutputTask {
  docket: Docket;
  output: Output;
  surveys: Surveys;
  files: Record<string, string>;
  out: string;
  at: string;
}

await runFenced<OutputTask>(async ({ docket, output, surveys, files, out, at }, onProgress) => {
  const handle = await open(out, 'w');
  try {
    await writeOutput(docket, output, {
      surveys,
      read: (source) => readFile(files[source]!),
      sink: async (chunk) => void (await handle.write(chunk)),
      at: new Date(at),
      onProgress,
    });
  } finally {
    await handle.close();
  }
});
