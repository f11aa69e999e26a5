import { spoken, t } from '../language';
import { TURN_SAID } from '../machines';
import type { OutputWords } from './outputWords';

export const press: OutputWords<'press'> = spoken({
  name: 'Press stand-in',
  said: 'A small simulated press prints the sheets on both sides and shows each as it comes out, its back turned as the press turns.',
  make: 'Send to press',
  inName: () => 'printed',
  says: ({ turn, ppi }) => [
    turn ? TURN_SAID[turn] : t`turned as the sheets were planned`,
    t`${ppi} pixels an inch`,
  ],
  fields: { ppi: 'Pixels an inch' },
});
