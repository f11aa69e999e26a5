import { writePlan } from '../../pdf/write/writeOutput';
import { ticketPlan } from '../../words/ticket';
import { writeParts } from '../pdfFiles';
import type { OutputMaker } from './outputMaker';

export const ticket: OutputMaker<'ticket'> = {
  write(work, output, parts, job) {
    const plan = ticketPlan(work, job.at, job);
    return writeParts(parts, job, (context) => writePlan(work, output, plan, context));
  },
};
