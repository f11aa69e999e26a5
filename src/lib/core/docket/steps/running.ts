import * as z from 'zod';
import { onPages } from './putLines';
import { textAtSchema } from '../../model/lines';
import { defineStep, StepProblem } from '../stepKind';
import { stepBase } from './base';
import { putLines, plainLines } from './putLines';

/** Puts running lines on pages: head and foot, at up to three places each, all set alike. */
export const running = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('running'),
    ...onPages,
    texts: z.array(textAtSchema).min(1).max(10),
  }),
)({
  kind: 'running',
  on: 'numbers',
  key: 'h',
  button: true,
  fresh: (begun) => ({
    ...plainLines(begun),
    kind: 'running',
    texts: [{ edge: 'head', across: 'outer', text: '{title}' }],
  }),
  apply(list, { texts, ...step }) {
    const places = texts.map(({ edge, across }) => `${edge} ${across}`);
    const twice = places.find((place, n) => places.indexOf(place) !== n);
    if (twice) throw new StepProblem('place-taken', { place: twice });
    return putLines(list, step, texts);
  },
});
