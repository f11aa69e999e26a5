import { expect, test } from 'vitest';
import { docketOf, hashOf, survey, surveyPage, takeInStep } from '../../../../tests/makers';
import { mm } from '../measure/unit';
import { emptyDocket } from './docket';
import { asLikely, likelyWork } from './likely';
import { readDocket } from './readDocket';
import { replay } from './replay';

const A4 = [210, 297] as const;
const A5 = [148, 210] as const;
/** The list of pages of such sizes, in mm, taken in. */
const listOf = (...sizes: (readonly [number, number])[]) =>
  replay(docketOf(sizes.length ? [takeInStep('a')] : []), {
    [hashOf('a')]: survey(
      sizes.map(([width, height]) => surveyPage({ width: mm(width), height: mm(height) })),
    ),
  }).list;
const many = (count: number, size: readonly [number, number]) => Array.from({ length: count }, () => size);

test.each([
  ['a poster', [A4], 'flat', false],
  ['a card with its back', many(2, [85, 55]), 'flat', true],
  ['three designs', many(3, A5), 'flat', false],
  ['five designs of five sizes', [A4, A5, [99, 210], [85, 55], [210, 210]] as const, 'flat', false],
  ['fifty tickets, or 25 with their backs', many(50, [57, 30]), 'flat', true],
  ['51 tickets', many(51, [57, 30]), 'flat', false],
  ['a booklet', many(16, A5), 'stitched', true],
  ['a booklet with a page of another size', [...many(15, A5), A4], 'stitched', true],
  // Each scan has a size of its own, nearly the same.
  [
    'twelve scans',
    many(12, [218, 156]).map(([w, h], n) => [w + (n % 3), h - (n % 2)] as const),
    'stitched',
    true,
  ],
] as const)('%s is taken for what it is', (_, sizes, kind, facing) => {
  expect(likelyWork(listOf(...sizes))).toEqual({ kind, facing });
});

test('what was guessed follows further files, and what somebody chose stays', () => {
  const [none, poster, booklet] = [listOf(), listOf(A4), listOf(...many(12, A4))];
  // As the database gives it back: its fields in another order.
  const begun = readDocket(emptyDocket('Work'));
  const flat = asLikely(begun, none, poster);
  expect([flat.scheme.kind, flat.book.facing]).toEqual(['flat', false]);
  const again = asLikely(flat, poster, booklet);
  expect([again.scheme, again.book]).toEqual([begun.scheme, begun.book]);
  const chosen = { ...begun, book: { ...begun.book, facing: false } };
  expect(asLikely(chosen, none, poster)).toBe(chosen);
  const worked = { ...flat, steps: [{ id: 'b', kind: 'turn', pages: 'all', by: 90 } as never] };
  expect(asLikely(worked, poster, booklet)).toBe(worked);
});
