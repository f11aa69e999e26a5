import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Docket } from '../../core/docket/docket';
import type { Output } from '../../core/handover/outputs';
import { checkFiles } from '../../make/checkFiles';
import { MADE, type MadeFile } from '../../make/made';
import { runFenced } from './protocol';
import { receiveSurveys, type SentSurveys } from './sentSurveys';
import { warmUpChecking } from './warmUp';

/** Reads the files of an output again, as `handOver` left them in `folder`, and holds them against what was asked. */
export interface CheckTask {
  docket: Docket;
  output: Output;
  surveys: SentSurveys;
  folder: string;
}

/**
 * Somebody waits for what is read here, and nothing bounds its memory but the fence: what it leaves of a file of 2,000 pages lies, so
 * that what the engine has compiled stays with it, and the next is read in two thirds of the time.
 */
const MOST_LEFT_MB = 150;

await runFenced<CheckTask>(
  async ({ docket, output, surveys, folder }, onProgress) => {
    const made: MadeFile[] = JSON.parse(await readFile(join(folder, MADE), 'utf8'));
    await checkFiles(docket, output, made, { surveys: receiveSurveys(surveys), folder, onProgress });
  },
  { meanwhile: process.env.FOLDER_STANDBY ? warmUpChecking() : undefined, mostLeftMb: MOST_LEFT_MB },
);
