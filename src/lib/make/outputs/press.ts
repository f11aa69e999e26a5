import { pressSides } from '../../core/handover/standIns';
import { drawPictures } from '../pictures';
import type { OutputMaker } from './outputMaker';

export const press: OutputMaker<'press'> = {
  async write(work, output, parts, job) {
    const sides = pressSides(work.plan!, output);
    const turned = (n: number) => sides[n]!.turned;
    const printed = await drawPictures(work, 'sheets', { ppi: output.ppi, turned }, parts, job);
    return printed.map((each, n) => {
      const { side, size } = sides[n]!;
      return { ...each, facts: { side, size, ...(turned(n) ? { upsideDown: true } : {}) } };
    });
  },
};
