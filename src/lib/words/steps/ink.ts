import type { StepWords } from './stepWords';

export const ink: StepWords<'ink'> = {
  name: 'Ink',
  title: 'Rename a spot ink',
  say: ({ from, to }) => ({ what: `“${from}”`, detail: `printed as “${to}”` }),
};
