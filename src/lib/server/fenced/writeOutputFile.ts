import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Docket } from '../../core/docket/docket';
import type { Proved } from '../../core/finish/proof';
import type { Output } from '../../core/handover/outputs';
import { handOver } from '../../make/handOver';
import { MADE } from '../../make/made';
import { isLanguage } from '../../words/language';
import { speakIn } from '../speech';
import { runFenced } from './protocol';
import { receiveSurveys, type SentSurveys } from './sentSurveys';
import { warmUp, warmUpRow } from './warmUp';

/** Makes the files of one output of a docket in `folder`, and a list of them there; `files` are the sources' paths by SHA-256. */
export interface OutputTask {
  docket: Docket;
  output: Output;
  surveys: SentSurveys;
  files: Record<string, string>;
  folder: string;
  at: string;
  despite?: string | undefined;
  proved?: Proved | undefined;
  /** What is written for people is written in it. */
  language?: string | undefined;
}

/** Warm-up work by the kind of standby process. */
const WARM_UPS: Record<string, (() => AsyncGenerator<void, void>) | undefined> = {
  row: warmUpRow,
  single: warmUp,
};

await runFenced<OutputTask>(
  async ({ docket, output, surveys, files, folder, at, despite, proved, language }, onProgress) => {
    const write = () =>
      handOver(docket, output, {
        surveys: receiveSurveys(surveys),
        read: (source) => Promise.resolve(readFileSync(files[source]!)),
        folder,
        at: new Date(at),
        despite,
        proved,
        onProgress,
      });
    const made = await speakIn(isLanguage(language) ? language : 'en', write);
    writeFileSync(join(folder, MADE), JSON.stringify(made));
  },
  { meanwhile: WARM_UPS[process.env.FOLDER_STANDBY ?? '']?.() },
);
