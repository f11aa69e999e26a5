import * as fc from 'fast-check';
import { expect, test } from 'vitest';
import { emptyDocket, type Docket } from './docket';
import { mergeDockets } from './mergeDockets';
import type { Step } from './steps';

const step = (id: string, pages = 'all'): Step => ({ id, kind: 'remove', pages });
const base: Docket = { ...emptyDocket('Guide'), steps: ['a', 'b', 'c', 'd'].map((id) => step(id)) };
const ids = (docket: Docket | undefined) => docket?.steps.map(({ id }) => id).join('');

test.each<[string, Partial<Docket>, Partial<Docket>, string | undefined]>([
  ['a title and a step', { title: 'Mine' }, { steps: [...base.steps, step('e')] }, 'abcde'],
  ['both added one', { steps: [...base.steps, step('x')] }, { steps: [...base.steps, step('y')] }, 'abcdyx'],
  [
    'one took one out, the other added',
    { steps: base.steps.slice(1) },
    { steps: [...base.steps, step('y')] },
    'bcdy',
  ],
  [
    'one moved, the other changed',
    { steps: [...base.steps].reverse() },
    { steps: [step('a', '1'), ...base.steps.slice(1)] },
    'dcba',
  ],
  [
    'one moved, the other added in the middle',
    { steps: [...base.steps].reverse() },
    { steps: [step('a'), step('n'), ...base.steps.slice(1)] },
    'dcban',
  ],
  [
    'both changed one step',
    { steps: [step('a', '1'), ...base.steps.slice(1)] },
    { steps: [step('a', '2'), ...base.steps.slice(1)] },
    undefined,
  ],
  [
    'one changed what the other took out',
    { steps: [step('a', '1'), ...base.steps.slice(1)] },
    { steps: base.steps.slice(1) },
    undefined,
  ],
  ['two titles', { title: 'Mine' }, { title: 'Theirs' }, undefined],
  [
    'two orders',
    { steps: [...base.steps].reverse() },
    { steps: [base.steps[1]!, base.steps[0]!, ...base.steps.slice(2)] },
    undefined,
  ],
])('%s', (_, mine, theirs, order) => {
  expect(ids(mergeDockets(base, { ...base, ...mine }, { ...base, ...theirs }))).toBe(order);
});

/** What somebody may do to a docket. */
const change = fc.oneof(
  fc.record({ at: fc.nat(8), add: fc.stringMatching(/^[m-z]{3}$/) }),
  fc.record({ out: fc.nat(8) }),
  fc.record({ set: fc.nat(8), to: fc.stringMatching(/^[1-9]$/) }),
  fc.record({ title: fc.constantFrom('One', 'Two') }),
);
type Change = typeof change extends fc.Arbitrary<infer C> ? C : never;
function carriedOut(who: string, changes: readonly Change[]): Docket {
  let docket = base;
  for (const each of changes) {
    const steps = [...docket.steps];
    if ('title' in each) docket = { ...docket, title: each.title };
    else if ('add' in each && !steps.some(({ id }) => id === who + each.add))
      steps.splice(each.at % (steps.length + 1), 0, step(who + each.add));
    else if ('out' in each && steps.length) steps.splice(each.out % steps.length, 1);
    else if ('set' in each && steps.length)
      steps[each.set % steps.length] = step(steps[each.set % steps.length]!.id, each.to);
    docket = { ...docket, steps };
  }
  return docket;
}

test('nothing that either did is lost, and who comes first changes no step', () => {
  fc.assert(
    fc.property(fc.array(change, { maxLength: 5 }), fc.array(change, { maxLength: 5 }), (one, two) => {
      const [mine, theirs] = [carriedOut('m', one), carriedOut('t', two)];
      const merged = mergeDockets(base, mine, theirs);
      expect(mergeDockets(base, mine, base)).toEqual(mine);
      expect(mergeDockets(base, base, theirs)).toEqual(theirs);
      expect(mergeDockets(base, mine, mine)).toEqual(mine);
      const set = (docket: Docket | undefined) =>
        docket && new Set(docket.steps.map((each) => JSON.stringify(each)));
      expect(set(mergeDockets(base, theirs, mine))).toEqual(set(merged));
      if (!merged) return;
      const old = new Map(base.steps.map((each) => [each.id, JSON.stringify(each)]));
      for (const docket of [mine, theirs]) {
        // Every step that was added or changed is there as it was left, and every step taken out is gone.
        for (const each of docket.steps)
          if (old.get(each.id) !== JSON.stringify(each)) expect(merged.steps).toContainEqual(each);
        for (const id of old.keys())
          if (!docket.steps.some((each) => each.id === id))
            expect(merged.steps.some((each) => each.id === id)).toBe(false);
        if (docket.title !== base.title) expect(merged.title).toBe(docket.title);
      }
      expect(new Set(merged.steps.map(({ id }) => id)).size).toBe(merged.steps.length);
    }),
  );
});
