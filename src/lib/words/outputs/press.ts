import { TURN_SAID } from '../machines';
import type { OutputWords } from './outputWords';

export const press: OutputWords<'press'> = {
  name: 'Press stand-in',
  said: 'A small simulated press prints the sheets on both sides and shows each as it comes out, its back turned as the press turns.',
  make: 'Send to press',
  inName: () => 'printed',
  says: ({ turn, ppi }) => [
    turn ? TURN_SAID[turn] : 'turned as the sheets were planned',
    `${ppi} pixels an inch`,
  ],
  fields: { ppi: 'Pixels an inch' },
};
