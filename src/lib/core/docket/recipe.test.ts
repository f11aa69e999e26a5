import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  docketOf,
  hashOf,
  plainSurvey,
  stepsOf,
  survey,
  surveyPage,
  takeInStep,
} from '../../../../tests/makers';
import type { StepDraft } from './steps';
import { mm } from '../measure/unit';
import { PLAIN_LINES } from '../model/lines';
import { PLAIN_SCHEMES } from '../sheets/schemes';
import { docketSchema, type Docket } from './docket';
import { askableIn, optionsOf, readRecipe, recipeOf, withRecipe, type Ask, type Recipe } from './recipe';
import { replay } from './replay';
import type { Step } from './steps';

const surveys = (count: number) => ({ [hashOf('a')]: plainSurvey(count) });
const taken = (...drafts: StepDraft[]): Docket => docketOf([takeInStep('a'), ...stepsOf(drafts)]);
const folio = {
  kind: 'folio',
  ...PLAIN_LINES,
  x: 30,
  y: 30,
  edge: 'foot',
  across: 'outer',
  text: '{page}',
} as const;
const own = (docket: Docket) => docket.steps.slice(1).map(({ id }) => id);
const recipe = (docket: Docket, count = 8, more = {}): Recipe =>
  recipeOf(replay(docket, surveys(count)), {
    name: 'Body',
    steps: own(docket),
    book: true,
    scheme: true,
    outputs: true,
    ...more,
  });

const drafts: fc.Arbitrary<StepDraft> = fc.oneof(
  fc.constantFrom<StepDraft>(
    { kind: 'remove', pages: 'last' } as StepDraft,
    { kind: 'turn', pages: 'odd', by: 180 } as unknown as StepDraft,
    { kind: 'bleed', pages: 'all', head: 9, foot: 9, spine: 9, fore: 9 } as StepDraft,
    { kind: 'blank', count: 2, where: { at: 'start' } } as unknown as StepDraft,
    { kind: 'move', pages: '1-2', where: { at: 'end' } } as unknown as StepDraft,
    { ...folio, pages: 'even' } as unknown as StepDraft,
  ),
  fc
    .record({ from: fc.integer({ min: 1, max: 4 }), n: fc.integer({ min: 0, max: 3 }) })
    .map(
      ({ from, n }) =>
        ({ kind: 'piece', pages: `${from}-${from + n}`, name: 'slip', quantity: 10 }) as StepDraft,
    ),
);

describe('a recipe', () => {
  test('saved from a docket and replayed on the same file gives the same page list, ids and all', () => {
    fc.assert(
      fc.property(fc.array(drafts, { maxLength: 8 }), fc.integer({ min: 8, max: 20 }), (given, count) => {
        const docket = { ...taken(...given), safe: mm(4), scheme: PLAIN_SCHEMES.stitched };
        const saved = recipe(docket, count);
        expect(readRecipe(JSON.parse(JSON.stringify(saved)))).toEqual(saved);
        const again = withRecipe(docketOf([takeInStep('a')]), saved, {});
        expect(docketSchema.safeParse(again).success).toBe(true);
        expect(replay(again, surveys(count)).list.pages).toEqual(replay(docket, surveys(count)).list.pages);
        expect(again.steps.slice(1).every(({ recipe: of }) => of?.name === 'Body' && of.version === 1)).toBe(
          true,
        );
      }),
    );
  });

  test('fits any page count: what was typed stays typed, and pages pointed at become a typed default that is asked for', () => {
    const first = taken({ ...folio, pages: 'odd' } as unknown as StepDraft);
    const { pages } = replay(first, surveys(8)).list;
    const pointed: Step = { id: 'b', kind: 'remove', pages: { ids: [pages[2]!.id, pages[3]!.id] } };
    const saved = recipe({ ...first, steps: [...first.steps, pointed] });
    expect(saved.steps).toMatchObject([{ pages: 'odd' }, { kind: 'remove', pages: '3, 4' }]);
    expect(saved.asks).toEqual([
      { name: 'pages', label: 'Which pages', kind: 'pages', step: 'b', path: ['pages'], preset: '3, 4' },
    ]);
    const on = (values: Record<string, string>) =>
      replay(withRecipe(docketOf([takeInStep('a')]), saved, values), surveys(20)).list.pages.map(
        ({ art }) => art!.index,
      );
    expect(on({})).toHaveLength(18);
    expect(on({ pages: 'last-5-last' }).at(-1)).toBe(13);
  });

  test('replayed twice on one job, its steps get ids of their own, and a format that is there already is that one', () => {
    const format = { id: 'f', name: 'Body', trim: { width: 300, height: 400 } };
    const docket: Docket = {
      ...taken({
        kind: 'format',
        pages: 'all',
        format: 'f',
        content: 'hold',
        fixed: { x: 'left', y: 'foot' },
      } as StepDraft),
      formats: [format],
    };
    const saved = recipe(docket);
    const twice = withRecipe(withRecipe(docketOf([takeInStep('a')]), saved, {}), saved, {});
    expect(new Set(twice.steps.map(({ id }) => id)).size).toBe(3);
    expect(twice.formats).toEqual([format]);
    const other = docketOf([takeInStep('a')], { formats: [{ ...format, name: 'Other' }] });
    const mixed = withRecipe(other, saved, {});
    expect(mixed.formats.map(({ name }) => name)).toEqual(['Other', 'Body']);
    expect(replay(mixed, surveys(2)).list.pages[0]!.format?.name).toBe('Body');
  });

  test('asks: a value goes where it belongs; one that is missing, wrong or not asked for is named', () => {
    const docket = taken({ ...folio, pages: 'all' } as unknown as StepDraft);
    const saved = recipe(docket);
    const step = saved.steps[0]!;
    expect(askableIn(saved, step)).toEqual(
      expect.arrayContaining([
        { path: ['pages'], kind: 'pages', preset: 'all' },
        { path: ['x'], kind: 'length', preset: 30 },
        { path: ['text'], kind: 'text', preset: '{page}' },
        { path: ['edge'], kind: 'choice', preset: 'foot', options: ['head', 'foot'] },
        { path: ['ink', 'k'], kind: 'number', preset: 1 },
      ]),
    );
    const asking: Recipe = {
      ...saved,
      asks: [
        { name: 'off', label: 'From the edge', kind: 'length', step: step.id, path: ['x'] },
        { name: 'says', label: 'Text', kind: 'text', step: step.id, path: ['text'], preset: '{page}' },
      ],
    };
    const code = (values: Record<string, string | number>) => {
      try {
        return withRecipe(docket, asking, values).steps.at(-1);
      } catch (error) {
        return (error as { code: string }).code;
      }
    };
    expect(code({ off: mm(20) })).toMatchObject({ x: mm(20), text: '{page}' });
    expect(code({})).toBe('value-missing');
    expect(code({ off: 'far' })).toBe('value-wrong');
    expect(code({ off: 1e9 })).toBe('value-wrong');
    expect(code({ off: 1, of: 2 })).toBe('value-unknown');
  });

  test('asks besides the steps too: how the book lies, what it is printed on, what goes out', () => {
    const docket: Docket = {
      ...taken(),
      scheme: { ...PLAIN_SCHEMES.stitched, run: { pieces: 100, overs: 3 } },
      outputs: [
        { kind: 'pages', crop: 'bleed', split: { by: 'every', count: 10 } },
        { kind: 'previews', of: 'sheets', ppi: 72 },
      ],
    };
    const ask = (name: string, kind: Ask['kind'], ...path: Ask['path']): Ask => ({
      name,
      label: name,
      kind,
      path,
    });
    const asking: Recipe = {
      ...recipe(docket),
      asks: [
        ask('paper', 'length', 'scheme', 'stock', 'width'),
        ask('pieces', 'number', 'scheme', 'run', 'pieces'),
        ask('safe', 'length', 'safe'),
        ask('spine', 'choice', 'book', 'spine'),
        ask('each', 'number', 'outputs', 0, 'split', 'count'),
      ],
    };
    expect(optionsOf(asking, asking.asks[3]!)).toEqual(['left', 'right', 'head']);
    const said = { paper: mm(330), pieces: 250, safe: mm(5), spine: 'right', each: 4 };
    expect(withRecipe(taken(), asking, said)).toMatchObject({
      scheme: { stock: { width: mm(330) }, run: { pieces: 250 } },
      safe: mm(5),
      book: { spine: 'right' },
      outputs: [{ split: { count: 4 } }, { ppi: 72 }],
    });
    for (const [name, wrong] of Object.entries({
      paper: -1,
      pieces: 0.5,
      spine: 'top',
      each: 0,
      safe: mm(60),
    }))
      expect(() => withRecipe(taken(), asking, { ...said, [name]: wrong })).toThrow(
        expect.objectContaining({ code: 'value-wrong', data: expect.objectContaining({ name }) }) as Error,
      );
    const beside = { ...asking, asks: [ask('x', 'text', 'steps')] };
    expect(() => withRecipe(taken(), beside, { x: 'y' })).toThrow('recipe-invalid');
  });

  test('whatever can be asked for, answered with what it is, changes nothing', () => {
    fc.assert(
      fc.property(
        fc.array(drafts, { maxLength: 5 }),
        fc.constantFrom(...Object.values(PLAIN_SCHEMES)),
        (given, scheme) => {
          const plain = recipe({ ...taken(...given), scheme });
          const all = [undefined, ...plain.steps]
            .flatMap((step) => askableIn(plain, step).map((value) => ({ ...value, step: step?.id })))
            .filter(({ preset }) => preset !== '')
            .slice(0, 50);
          expect(all.length).toBeGreaterThan(3);
          const name = (n: number) => `value-${n}`;
          const asks = all.map(({ path, kind, step }, n) => ({
            ...{ name: name(n), label: name(n), kind, path: [...path] },
            ...(step ? { step } : {}),
          }));
          const asking = readRecipe({ ...plain, asks });
          const said = Object.fromEntries(all.map(({ preset }, n) => [name(n), preset]));
          expect(withRecipe(taken(), asking, said)).toEqual(withRecipe(taken(), plain, {}));
        },
      ),
    );
  });

  test('reaches nothing but its own steps, whatever path it was given, and leaves out what it was not to hold', () => {
    const docket = taken({ ...folio, pages: 'all' } as unknown as StepDraft);
    const saved = recipe(docket, 8, { book: false, scheme: false, outputs: false });
    const head = { ...docket, book: { first: 'lower' as const, spine: 'head' as const, facing: true } };
    expect(withRecipe(head, saved, {})).toMatchObject({ book: head.book, scheme: docket.scheme });
    const ask = { name: 'x', label: 'x', kind: 'text' as const, step: saved.steps[0]!.id, preset: 'y' };
    for (const path of [
      ['__proto__', 'polluted'],
      ['constructor', 'prototype', 'polluted'],
      ['none', 'here'],
    ])
      expect(() => withRecipe(docket, { ...saved, asks: [{ ...ask, path }] }, {})).toThrow('recipe-invalid');
    expect(({} as { polluted?: string }).polluted).toBeUndefined();
    const twice = { ...saved, outputs: [{ kind: 'sheets' }, { kind: 'sheets' }] };
    expect(() => readRecipe(twice)).toThrow('recipe-invalid');
  });

  test.each([
    ['of a newer Folder', { recipe: 2 }, 'recipe-newer'],
    ['with a step of an unknown kind', { steps: [{ kind: 'emboss', id: 'x' }] }, 'recipe-unknown-step'],
    ['with a step that is none', { steps: [{ kind: 'remove', id: 'x' }] }, 'recipe-invalid'],
    ['without a name', { name: ' ' }, 'recipe-invalid'],
    [
      'that asks for two values under one name',
      { asks: ['safe', 'book'].map((path) => ({ name: 'x', label: 'x', kind: 'text', path: [path] })) },
      'recipe-invalid',
    ],
  ])('%s is refused', (_, wrong, code) => {
    const given = { recipe: 1, name: 'x', version: 1, steps: [], formats: [], asks: [], ...wrong };
    expect(() => readRecipe(given)).toThrow(code);
    expect(() => readRecipe(null)).toThrow('recipe-invalid');
  });
});

test('scans are put in order by the numbers on them wherever a recipe brings the step; not before they are measured', () => {
  const spread = { width: 840, height: 595 };
  // Stitched, by practice: 8·1, 2·7, 6·3, 4·5; the third scan lies upside down.
  const scans = [
    [8, 1],
    [2, 7],
    [6, 3],
    [4, 5],
  ].map(([left, right], n) => {
    const at = (x: number) =>
      n === 2 ? { x: 840 - x, y: 565, turn: 180 as const } : { x, y: 30, turn: 0 as const };
    return surveyPage(spread, {
      drawn: {
        numbers: [
          { value: left!, ...at(210) },
          { value: right!, ...at(630) },
        ],
      },
    });
  });
  const order: Step = {
    id: 'o',
    kind: 'reading-order',
    pages: 'all',
    arrangement: { by: 'spreads' },
    gutter: 0,
    byNumbers: true,
  };
  const docket = docketOf([takeInStep('a'), order]);
  const { list, failed } = replay(docket, { [hashOf('a')]: survey(scans) });
  expect(failed).toEqual([]);
  expect(list.pages.map(({ art }) => art!.index)).toEqual([0, 1, 2, 3, 3, 2, 1, 0]);
  const unmeasured = replay(docket, { [hashOf('a')]: plainSurvey(4, spread) });
  expect(unmeasured.failed[0]!.problem).toMatchObject({ code: 'not-measured', data: { position: 1 } });
  expect(unmeasured.list.pages).toHaveLength(4);
});
