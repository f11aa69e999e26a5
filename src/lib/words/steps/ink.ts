import { spoken, t } from '../language';
import type { StepWords } from './stepWords';

export const ink: StepWords<'ink'> = spoken({
  name: 'Ink',
  title: 'Rename a spot ink',
  say: ({ from, to }) => ({ what: `“${from}”`, detail: t`printed as “${to}”` }),
});
