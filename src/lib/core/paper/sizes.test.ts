import { execFileSync } from 'node:child_process';
import { describe, expect, test } from 'vitest';
import { mm } from '../measure/unit';
import { NAMED_SIZES, nameSize, sizeByName } from './sizes';
import { stocksFor } from './stock';

/** What Debian's libpaper knows, in millimetres. */
const libpaper = new Map(
  execFileSync('paperconf', ['-a', '-N', '-s', '-m'], { encoding: 'utf8' })
    .trim()
    .split('\n')
    .map((line) => {
      const [, name, width, height] = /^(\S+) ([\d.]+) mm ([\d.]+) mm$/.exec(line)!;
      return [name!, [Number(width), Number(height)] as const];
    }),
);

const shared = NAMED_SIZES.filter(
  ({ name }) => libpaper.has(name) || (name === 'Half Letter' && libpaper.has('Halfletter')),
);

test('libpaper and Folder share enough names for the comparison to mean something', () =>
  expect(shared.length).toBeGreaterThan(30));

// libpaper's Executive is 184.15 × 266.7 mm, as here; sizes are listed portrait by both.
test.each(shared.map((size) => [size.name, size] as const))(
  '%s is the size that libpaper gives',
  (name, size) => {
    const [width, height] = libpaper.get(name === 'Half Letter' ? 'Halfletter' : name)!;
    expect(size.width / mm(1)).toBeCloseTo(width, 2);
    expect(size.height / mm(1)).toBeCloseTo(height, 2);
  },
);

// ISO 217, from memory; ISO/IEC 7810 (ID-1).
test.each([
  ['RA2', 430, 610],
  ['RA4', 215, 305],
  ['SRA3', 320, 450],
  ['SRA4', 225, 320],
  ['ID-1 card', 53.98, 85.6],
])('%s is %d × %d mm', (name, width, height) => {
  expect(sizeByName(name)!.width).toBeCloseTo(mm(width), 9);
  expect(sizeByName(name)!.height).toBeCloseTo(mm(height), 9);
});

test('a size is named within half a point, lying or upright', () => {
  expect(nameSize({ width: 595, height: 842 })).toEqual({ name: 'A4', landscape: false });
  expect(nameSize({ width: mm(210), height: mm(148) })).toEqual({ name: 'A5', landscape: true });
  expect(nameSize({ width: mm(148), height: mm(209.8) })).toBeUndefined();
  expect(sizeByName('sra 3')?.name).toBe('SRA3');
});

describe('stock for a piece', () => {
  // By practice: two A5 pages side by side with 3 mm bleed fit SRA4, with marks 5 mm long they do not.
  test.each([
    [302, 216, 'SRA4'],
    [312, 226, 'B4'],
    [216, 302, 'SRA4'],
    [420, 297, 'A3'],
    [426, 303, 'RA3'],
  ])('%d × %d mm lies on %s at the least', (width, height, name) => {
    expect(stocksFor({ width: mm(width), height: mm(height) })[0]!.name).toBe(name);
  });

  test('none takes a piece larger than all', () => {
    expect(stocksFor({ width: mm(2000), height: mm(2000) })).toEqual([]);
  });
});
