import { sayPlace } from '../pages';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const takeIn: StepWords<'take-in'> = {
  name: 'Take in',
  say: ({ name, take, where, cleaned }, { before }) => ({
    what: name,
    detail: listed(take && `its pages ${take}`, sayPlace(where, before), cleaned && 'cleaned'),
  }),
};
