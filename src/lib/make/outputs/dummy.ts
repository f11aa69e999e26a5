import { paperDummy } from '../../core/finish/dummy';
import { writePlan } from '../../pdf/write/writeOutput';
import { sayCrease } from '../../words/finishing';
import { writeParts } from '../pdfFiles';
import type { OutputMaker } from './outputMaker';

export const dummy: OutputMaker<'dummy'> = {
  write(work, output, parts, job) {
    const plan = paperDummy(work.plan!, output.paper, sayCrease);
    return writeParts(parts, job, (context) => writePlan(work, output, plan, context));
  },
};
