import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { mm } from '../measure/unit';
import { applyToPoint, invert } from '../measure/matrix';
import { A5, docketOf, hashOf, plainSurvey, survey, surveyPage, takeInStep } from '../../../../tests/makers';
import { bleedSides } from '../pages/page';
import { docketSchema, emptyDocket } from './docket';
import { replay } from './replay';
import type { Step } from './steps';
import { touchedBy } from './touched';

const surveys = { [hashOf('a')]: plainSurvey(6), [hashOf('b')]: plainSurvey(1) };
const run = (...steps: Step[]) => replay(docketOf(steps), surveys);
/** Pages by source and number: a1 is page 1 of source a, - a blank. */
const shape = (result: ReturnType<typeof run>) =>
  result.list.pages.map(({ art }) => (art ? `${art.source[0]}${art.index + 1}` : '-')).join(' ');
const inner = takeInStep('a');
const move = (pages: string, where: Extract<Step, { kind: 'move' }>['where']): Step => ({
  id: 'm',
  kind: 'move',
  pages,
  where,
});

describe('steps', () => {
  test.each<[string, Step[], string]>([
    ['take in at the end and at the start', [inner, takeInStep('b', 'start')], 'b1 a1 a2 a3 a4 a5 a6'],
    ['take in some pages', [{ ...inner, take: '2-3, last' } as Step], 'a2 a3 a6'],
    [
      'blank after',
      [inner, { id: 'x', kind: 'blank', count: 2, where: { at: 'after', pages: '2' } }],
      'a1 a2 - - a3 a4 a5 a6',
    ],
    [
      'blank before last',
      [inner, { id: 'x', kind: 'blank', count: 1, where: { at: 'before', pages: 'last' } }],
      'a1 a2 a3 a4 a5 - a6',
    ],
    ['remove', [inner, { id: 'x', kind: 'remove', pages: 'even' }], 'a1 a3 a5'],
    ['move forwards', [inner, move('1-2', { at: 'after', pages: '4' })], 'a3 a4 a1 a2 a5 a6'],
    ['move backwards', [inner, move('last', { at: 'before', pages: '2' })], 'a1 a6 a2 a3 a4 a5'],
    ['move to the start', [inner, move('3, 5', { at: 'start' })], 'a3 a5 a1 a2 a4 a6'],
    [
      'a step switched off',
      [inner, { id: 'x', kind: 'remove', pages: 'all', off: true }],
      'a1 a2 a3 a4 a5 a6',
    ],
  ])('%s', (_, steps, expected) => {
    const result = run(...steps);
    expect(shape(result)).toBe(expected);
    expect(result.failed).toEqual([]);
  });

  test.each<[Step, string]>([
    [{ id: 'x', kind: 'blank', count: 2, where: { at: 'after', pages: '2' } }, '3 4'],
    [{ id: 'x', kind: 'turn', pages: '2, last', by: 90 }, '2 6'],
    [move('1-2', { at: 'after', pages: '4' }), '3 4'],
    [{ id: 'x', kind: 'remove', pages: 'even' }, ''],
    [{ id: 'x', kind: 'numbers', series: [{ from: '1', style: 'D' }] }, ''],
  ])('$kind acts on these pages of those it leaves', (step, expected) => {
    const { after, list, failed } = run(inner, step);
    const touched = new Set(touchedBy(step, after[0]!, list));
    expect(failed).toEqual([]);
    expect(list.pages.flatMap(({ id }, i) => (touched.has(id) ? [i + 1] : [])).join(' ')).toBe(expected);
  });

  test.each<[string, Step, string]>([
    ['a move beside its own pages', move('2-4', { at: 'after', pages: '3' }), 'into-itself'],
    ['pages that are not there', { id: 'x', kind: 'remove', pages: '9' }, 'no-such-page'],
    ['a source that is not there', takeInStep('c'), 'source-missing'],
  ])('%s fails on its step and leaves the list as it was', (_, step, code) => {
    const result = run(inner, step, { id: 'z', kind: 'remove', pages: '1' });
    expect(result.failed.map((failure) => [failure.step.id, failure.problem.code])).toEqual([
      [step.id, code],
    ]);
    expect(shape(result)).toBe('a2 a3 a4 a5 a6');
  });

  test('a source taken in twice has ids of its own each time', () => {
    const ids = run(inner, { ...inner, id: 't2' }).list.pages.map((page) => page.id);
    expect(new Set(ids).size).toBe(12);
  });

  test('pages come at their TrimBox with the bleed the file declares', () => {
    const media = { x0: 0, y0: 0, x1: A5.width + 40, y1: A5.height + 40 };
    const trim = { x0: 20, y0: 20, x1: 20 + A5.width, y1: 20 + A5.height };
    const bleed = { x0: 20 - 9, y0: 20 - 6, x1: trim.x1 + 8.5, y1: trim.y1 + 7 };
    const page = surveyPage(A5, {
      boxes: { media, crop: media, bleed, trim, art: trim },
      given: ['media', 'bleed', 'trim'],
    });
    const [taken] = replay(docketOf([inner]), { [hashOf('a')]: survey([page]) }).list.pages;
    expect(taken!.trim.width).toBeCloseTo(A5.width, 9);
    expect(bleedSides(taken!.bleed, 'right')).toEqual({
      left: 9,
      foot: 6,
      right: expect.closeTo(8.5),
      head: expect.closeTo(7),
    });
    expect(taken!.art!.reach).toEqual(bleed);
  });

  test('bleed by edge follows the leaf', () => {
    const { list } = run(inner, {
      id: 'x',
      kind: 'bleed',
      pages: 'all',
      head: 1,
      foot: 2,
      spine: 3,
      fore: 4,
    });
    expect(bleedSides(list.pages[0]!.bleed, 'right')).toEqual({ left: 3, right: 4, head: 1, foot: 2 });
    expect(bleedSides(list.pages[1]!.bleed, 'left')).toEqual({ left: 4, right: 3, head: 1, foot: 2 });
  });

  test('trim: the fixed point stays put, spine and fore edge mirror, and fit there and back is where it was', () => {
    const to = { width: mm(74), height: mm(105) };
    const trim = (id: string, size: typeof to, content: 'hold' | 'fit'): Step => ({
      id,
      kind: 'trim',
      pages: 'all',
      ...size,
      content,
      fixed: { x: 'spine', y: 'head' },
    });
    const [right, left] = run(inner, trim('x', to, 'hold')).list.pages;
    expect(applyToPoint(right!.art!.place, 0, A5.height)).toEqual({
      x: expect.closeTo(0),
      y: expect.closeTo(to.height),
    });
    expect(applyToPoint(left!.art!.place, A5.width, A5.height)).toEqual({
      x: expect.closeTo(to.width),
      y: expect.closeTo(to.height),
    });
    const back = run(inner, trim('x', to, 'fit'), trim('y', A5, 'fit')).list.pages[1]!;
    invert(back.art!.place).forEach((entry, i) => expect(entry).toBeCloseTo([1, 0, 0, 1, 0, 0][i]!, 9));
  });
});

test('a replay that re-uses an earlier one equals one done afresh', () => {
  const step = (id: string): fc.Arbitrary<Step> =>
    fc.oneof(
      fc.record({
        id: fc.constant(id),
        kind: fc.constant('blank' as const),
        count: fc.integer({ min: 1, max: 3 }),
        where: fc.constantFrom({ at: 'end' as const }, { at: 'before' as const, pages: '2' }),
      }),
      fc.record({
        id: fc.constant(id),
        kind: fc.constant('remove' as const),
        pages: fc.constantFrom('1', 'odd', '4-', '99'),
      }),
      fc.constant({ ...takeInStep('b'), id }),
    );
  const steps = fc.tuple(...['p', 'q', 'r', 's'].map(step));
  fc.assert(
    fc.property(steps, steps, fc.integer({ min: 0, max: 4 }), (first, second, keep) => {
      const before = replay(docketOf([inner, ...first]), surveys);
      const changed = docketOf([inner, ...first.slice(0, keep), ...second.slice(keep)]);
      const [reused, afresh] = [replay(changed, surveys, before), replay(changed, surveys)];
      expect(reused.after).toEqual(afresh.after);
      expect(reused.failed).toEqual(afresh.failed);
    }),
  );
});

test('a docket survives being written and read; a wrong one is refused where it is wrong', () => {
  const docket = docketOf([
    inner,
    {
      id: 'x',
      kind: 'trim',
      pages: { ids: ['p'] },
      ...A5,
      content: 'hold',
      fixed: { x: 'spine', y: 'head' },
    },
  ]);
  expect(docketSchema.parse(JSON.parse(JSON.stringify(docket)))).toEqual(docket);
  const wrong = { ...emptyDocket('x'), steps: [inner, { ...inner }] };
  expect(docketSchema.safeParse(wrong).success).toBe(false);
  for (const width of [0, -3, 14_401, NaN, Infinity])
    expect(
      docketSchema.safeParse(
        docketOf([
          {
            id: 'x',
            kind: 'trim',
            pages: 'all',
            width,
            height: 10,
            content: 'hold',
            fixed: { x: 'left', y: 'foot' },
          },
        ]),
      ).success,
    ).toBe(false);
});
