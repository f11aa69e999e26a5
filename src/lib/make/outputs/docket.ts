import { writeText } from '../text';
import type { OutputMaker } from './outputMaker';

export const docket: OutputMaker<'docket'> = {
  async write(work, _, parts, job) {
    return writeText(`${JSON.stringify(work.docket, null, 2)}\n`, parts, job);
  },
};
