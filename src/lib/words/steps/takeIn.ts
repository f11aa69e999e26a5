import { spoken, t } from '../language';
import { sayPlace } from '../pages';
import { listed } from './stepWords';
import type { StepWords } from './stepWords';

export const takeIn: StepWords<'take-in'> = spoken({
  name: 'Take in',
  say: ({ name, take, where, cleaned }, { before }) => ({
    what: name,
    detail: listed(take && t`its pages ${take}`, sayPlace(where, before), cleaned && t`cleaned`),
  }),
});
