import { expect, test } from 'vitest';
import { partOf } from './parts';

// RFC 9110, 14.1.2, has these forms: first to last, first to the end, so many from the end.
test.each([
  [null, undefined],
  ['bytes=0-499', { from: 0, to: 500 }],
  ['bytes=500-', { from: 500, to: 10_000 }],
  ['bytes=-500', { from: 9500, to: 10_000 }],
  ['bytes=9500-99999', { from: 9500, to: 10_000 }],
  ['bytes=-99999', undefined],
  ['bytes=0-', undefined],
  ['bytes=0-9999', undefined],
  ['bytes=0-9998', { from: 0, to: 9999 }],
  ['bytes=10000-', 'none'],
  ['bytes=-0', 'none'],
  // Not understood, or of no use: the whole file is an answer too (14.2).
  ['bytes=500-499', undefined],
  ['bytes=0-1,5-9', undefined],
  ['bytes=-', undefined],
  ['lines=1-2', undefined],
])('%s', (range, part) => expect(partOf(range, 10_000)).toEqual(part));
