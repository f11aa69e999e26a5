import { spoken, t } from '../language';
import { sayCutBy } from '../machines';
import type { OutputWords } from './outputWords';

export const cutter: OutputWords<'cutter'> = spoken({
  name: 'Cutter stand-in',
  said: 'A small simulated cutter reads the ink or the layer it is to follow and draws its path, with the length and the pieces.',
  make: 'Send to cutter',
  inName: () => 'cut path',
  says: ({ of, by }) => [of, by ? sayCutBy(by) : t`what is drawn for cutting`],
});
