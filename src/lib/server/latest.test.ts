import { expect, test } from 'vitest';
import { Latest } from './latest';

test('what was used last is kept, however long ago it came', () => {
  const latest = new Latest<number>(3);
  for (const n of [1, 2, 3]) latest.set(`${n}`, n);
  expect(latest.get('1')).toBe(1);
  latest.set('4', 4);
  latest.set('5', 5);
  expect(['1', '2', '3', '4', '5'].map((key) => latest.get(key))).toEqual([1, undefined, undefined, 4, 5]);
  latest.delete('4');
  expect(latest.get('4')).toBeUndefined();
});
