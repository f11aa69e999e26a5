import { expect } from 'vitest';
import { workOut } from '../src/lib/core/checks';
import type { Docket } from '../src/lib/core/docket/docket';
import { contains } from '../src/lib/core/measure/box';
import { applyToPoint } from '../src/lib/core/measure/matrix';
import { sidesOf, type SheetPlan } from '../src/lib/core/sheets/plan';
import { make, tool, wordsOf, type Given } from './outside';

type Word = ReturnType<typeof wordsOf>[0][0];

/** The sheets of a docket over the given sources. */
export const planOf = (docket: Docket, ...given: Given[]): SheetPlan =>
  workOut(docket, Object.fromEntries(given.map(({ hash, survey }) => [hash, survey]))).plan!;

/** Every word of the sheets must lie where the plan puts it: markers of a page in its cell, head towards the head. */
export async function expectPlanned(docket: Docket, ...given: Given[]) {
  const plan = planOf(docket, ...given);
  const path = await make(docket, { kind: 'sheets' }, ...given);
  tool('qpdf', '--check', path);
  const sides = sidesOf(plan);
  const found = wordsOf(path);
  expect(found).toHaveLength(sides.length);
  let seen = 0;
  sides.forEach(({ drawn: { cells } }, i) => {
    const filled = cells.filter((cell) => cell.page?.art);
    expect(found[i]!).toHaveLength(3 * filled.length);
    for (const cell of filled) {
      const number = cell.page!.art!.index + 1;
      const { width, height } = cell.page!.trim;
      for (const [word, y] of [
        [`P${number}`, height / 2],
        [`HEAD${number}`, height - 40],
        [`FOOT${number}`, 40],
      ] as const) {
        const expected = applyToPoint(cell.matrix, width / 2, y + 4);
        const off = (one: { x: number; y: number }) => Math.hypot(one.x - expected.x, one.y - expected.y);
        // A page may lie on a side several times.
        const [at] = found[i]!.filter(({ text }) => text === word).sort((a, b) => off(a) - off(b)) as [Word];
        expect(Math.hypot(at.x - expected.x, at.y - expected.y), `${word} on side ${i + 1}`).toBeLessThan(4);
        expect(contains(cell.trim, { x0: at.x, x1: at.x, y0: at.y, y1: at.y })).toBe(true);
        seen++;
      }
    }
  });
  const copies = 3 * sides.flatMap(({ drawn }) => drawn.cells).filter(({ page }) => page?.art).length;
  expect(seen).toBe(copies);
  return { path, plan };
}
