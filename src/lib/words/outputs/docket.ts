import { spoken } from '../language';
import { plural } from '../plural';
import type { OutputWords } from './outputWords';

export const docket: OutputWords<'docket'> = spoken({
  name: 'Docket',
  said: 'The steps of this job as JSON: kept with the files, the command line makes the same outputs from it.',
  make: 'Make docket',
  inName: () => '',
  amount: ({ docket }) => plural(docket.steps.length, 'step'),
});
