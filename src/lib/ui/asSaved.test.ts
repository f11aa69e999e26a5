import { describe, expect, test } from 'vitest';
import { PLAIN_SCHEMES, schemeSchema, type Scheme } from '../core/sheets/schemes';
import { asSaved } from './asSaved';

describe('a scheme that was saved', () => {
  test.each(Object.values(PLAIN_SCHEMES) as Scheme[])(
    '$kind says the same as the one that was sent',
    (scheme) => {
      const backwards = Object.fromEntries(Object.entries(scheme).reverse());
      expect(asSaved(schemeSchema, backwards)).toBe(asSaved(schemeSchema, schemeSchema.parse(scheme)));
    },
  );

  test('and another one something else', () => {
    const { stitched } = PLAIN_SCHEMES;
    expect(asSaved(schemeSchema, { ...stitched, turn: 'long-edge' })).not.toBe(
      asSaved(schemeSchema, { ...stitched, turn: 'short-edge' }),
    );
  });
});
