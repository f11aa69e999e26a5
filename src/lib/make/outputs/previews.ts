import { drawPictures } from '../pictures';
import type { OutputMaker } from './outputMaker';

export const previews: OutputMaker<'previews'> = {
  write: (work, { of, ppi }, parts, job) => drawPictures(work, of, { ppi }, parts, job),
};
