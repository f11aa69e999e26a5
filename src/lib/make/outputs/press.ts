import { pressSides } from '../../core/handover/standIns';
import { drawPictures } from '../pictures';
import type { OutputMaker } from './outputMaker';
import { entryAt } from '../../core/entries';

export const press: OutputMaker<'press'> = {
  async write(work, output, parts, job) {
    const sides = pressSides(work.plan!, output);
    const turned = (n: number) => entryAt(sides, n).turned;
    const printed = await drawPictures(work, 'sheets', { ppi: output.ppi, turned }, parts, job);
    return printed.map((each, n) => {
      const { side, size } = entryAt(sides, n);
      return { ...each, facts: { side, size, ...(turned(n) ? { upsideDown: true } : {}) } };
    });
  },
};
