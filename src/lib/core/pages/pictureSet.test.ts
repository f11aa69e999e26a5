import { expect, test } from 'vitest';
import { inOrderTaken, inScanOrder, isEndMark, missingFrom, nameOfSet } from './pictureSet';

const ordered = (names: string[]) => inScanOrder(names, (name) => name);

test('scans follow as they were scanned: 2 before 10, each back after its front', () => {
  expect(ordered(['s10.jpg', 's2.jpg', 's1.jpg'])).toEqual(['s1.jpg', 's2.jpg', 's10.jpg']);
  expect(ordered(['back-01.tif', 'back-02.tif', 'front-01.tif', 'front-02.tif'])).toEqual([
    'front-01.tif',
    'back-01.tif',
    'front-02.tif',
    'back-02.tif',
  ]);
  expect(ordered(['rule 2 Verso.jpg', 'rule 10 Recto.jpg', 'rule 2 Recto.jpg', 'rule 10 Verso.jpg'])).toEqual(
    ['rule 2 Recto.jpg', 'rule 2 Verso.jpg', 'rule 10 Recto.jpg', 'rule 10 Verso.jpg'],
  );
  // A word that only holds one of these is none.
  expect(ordered(['backstage 2.jpg', 'backstage 1.jpg'])).toEqual(['backstage 1.jpg', 'backstage 2.jpg']);
});

test('only pictures are taken in by their names', () => {
  const taken = (names: string[]) => inOrderTaken(names, (name) => name);
  expect(taken(['b.jpg', 'a.png'])).toEqual(['a.png', 'b.jpg']);
  expect(taken(['inner.pdf', 'cover.pdf'])).toEqual(['inner.pdf', 'cover.pdf']);
  expect(taken(['inner.pdf', 'cover.jpg'])).toEqual(['inner.pdf', 'cover.jpg']);
});

test('what is missing is named as it would be called', () => {
  expect(missingFrom(['scan_001.jpg', 'scan_002.jpg', 'scan_004.jpg'])).toEqual(['scan_003.jpg']);
  expect(missingFrom(['front-01.tif', 'back-01.tif', 'front-02.tif'])).toEqual(['back-02.tif']);
  expect(missingFrom(['Front 1.jpg', 'Back 1.jpg', 'Front 3.jpg', 'Back 3.jpg'])).toEqual(['Front 2.jpg']);
  expect(missingFrom(['cover.jpg', 'inside.jpg'])).toEqual([]);
  expect(missingFrom(['a1.jpg', 'b7.jpg'])).toEqual([]);
  expect(missingFrom([])).toEqual([]);
});

test('an end mark, and what a set is called', () => {
  expect(['end', 'DONE.txt', 'complete.ok'].every(isEndMark)).toBe(true);
  expect(['end-01.jpg', 'weekend.txt', 'end.of.set'].some(isEndMark)).toBe(false);
  expect(nameOfSet(['rule-book_001.jpg', 'rule-book_002.jpg'])).toBe('rule-book');
  expect(nameOfSet(['001.jpg', '002.jpg'])).toBe('001');
});
