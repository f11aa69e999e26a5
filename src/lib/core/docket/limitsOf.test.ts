import { expect, test } from 'vitest';
import { colourSchema } from '../ink/colour';
import { outputKind } from '../handover/outputs';
import { stockSchema } from '../paper/stock';
import { schemeSchema } from '../sheets/schemes';
import { limitsOf } from './limitsOf';
import { stepKind } from './steps';

test.each<[path: string, limits: ReturnType<typeof limitsOf>, expected: ReturnType<typeof limitsOf>]>([
  ['a field', limitsOf(stepKind('set').schema, 'digits'), { least: 1, most: 12, whole: true }],
  ['one that may be left out', limitsOf(stockSchema, 'grammage'), { least: 10, most: 2000, whole: false }],
  [
    'within another',
    limitsOf(stepKind('running').schema, 'rule.width'),
    { least: 0.05, most: 72, whole: false },
  ],
  [
    'in one of several forms',
    limitsOf(outputKind('pages').schema, 'split.level'),
    { least: 0, most: 20, whole: true },
  ],
  ['in one of several kinds', limitsOf(schemeSchema, 'copies.across'), { least: 1, most: 100, whole: true }],
  ['as percents', limitsOf(colourSchema, 'tint', 100), { least: 0, most: 100, whole: false }],
])('a form’s limits are those of the schema: %s', (_, limits, expected) => {
  expect(limits).toEqual(expected);
});

test('a path to no number is a fault of the form', () => {
  expect(() => limitsOf(stepKind('set').schema, 'text')).toThrow('the schema has no number at text');
  expect(() => limitsOf(stepKind('set').schema, 'rule.colour')).toThrow('no number at rule.colour');
});
