import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { contains, heightOf, intersect, sizeBox, widthOf } from '../measure/box';
import { applyToBox, turnMatrix } from '../measure/matrix';
import { mm } from '../measure/unit';
import { workOut } from '../checks';
import { bookOf, docketOf, hashOf, plainSurvey, takeInStep, twoSided } from '../../../../tests/makers';
import { planSheets } from '.';
import { DEFAULT_SCHEME, type Stitched } from './schemes';
import type { Cell } from './plan';

const plan = (pages: number, scheme: Partial<Stitched> = {}, bleed = 0, book = bookOf('right')) =>
  workOut(
    docketOf(
      [
        takeInStep('a'),
        { id: 'b', kind: 'bleed', pages: 'all', head: bleed, foot: bleed, spine: bleed, fore: bleed },
      ],
      {
        scheme: { ...DEFAULT_SCHEME, ...scheme },
        book,
      },
    ),
    { [hashOf('a')]: plainSurvey(pages) },
  ).plan!;
const positions = (cells: readonly Cell[]) => cells.map((cell) => cell.position).join('·');

describe('stitched', () => {
  // By practice: front 8·1, back 2·7; front 6·3, back 4·5.
  test('8 pages', () => {
    expect(
      twoSided(plan(8)).map(({ front, back }) => [positions(front.cells), positions(back.cells)]),
    ).toEqual([
      ['8·1', '2·7'],
      ['6·3', '4·5'],
    ]);
  });

  // Arithmetic: sheet s from 0 carries N−2s, 2s+1 on its front and 2s+2, N−2s−1 on its back.
  test('N pages follow the formula, blanks filling the last sheet', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 260 }),
        fc.constantFrom('before-last' as const, 'end' as const),
        (pages, pad) => {
          const made = plan(pages, { pad });
          const n = Math.ceil(pages / 4) * 4;
          expect(made.blanksAdded).toBe(n - pages);
          twoSided(made).forEach(({ front, back }, s) => {
            expect(positions(front.cells)).toBe(`${n - 2 * s}·${2 * s + 1}`);
            expect(positions(back.cells)).toBe(`${2 * s + 2}·${n - 2 * s - 1}`);
          });
          // A single page is the front, wherever blanks go.
          const last = made.pages.at(pad === 'end' || pages === 1 ? pages - 1 : -1)!;
          expect(last.page?.art?.index).toBe(pages - 1);
        },
      ),
    );
  });

  // Geometry: turned on the long edge of a landscape sheet the back is turned 180° against the front; on the short edge not.
  test.each([
    ['short-edge', 'vertical', 0],
    ['long-edge', 'horizontal', 180],
  ] as const)('turned on the %s of a landscape sheet', (turn, axis, degrees) => {
    const made = plan(8, { turn, gap: mm(4) });
    expect(made.turnAxis).toBe(axis);
    expect(twoSided(made)[0]!.back.cells.map((cell) => cell.turn)).toEqual([degrees, degrees]);
    // Held to the light, a leaf's two faces cover each other.
    for (const { front, back } of twoSided(made)) {
      const through = back.cells.map((cell) =>
        axis === 'vertical'
          ? { ...cell.trim, x0: made.sheet.width - cell.trim.x1, x1: made.sheet.width - cell.trim.x0 }
          : { ...cell.trim, y0: made.sheet.height - cell.trim.y1, y1: made.sheet.height - cell.trim.y0 },
      );
      for (const cell of front.cells) {
        const other = cell.position % 2 ? cell.position + 1 : cell.position - 1;
        const behind = through[back.cells.findIndex((c) => c.position === other)]!;
        for (const edge of ['x0', 'x1', 'y0', 'y1'] as const)
          expect(behind[edge]).toBeCloseTo(cell.trim[edge], 9);
      }
    }
  });

  // Geometry: a leaf that turns upwards shows its back foot to spine, so both pages of a side read the same way up; of a
  // sheet turned about the spine's own axis the back reads as the front does, of one turned about the other it is upside down.
  test.each([
    ['short-edge', 'horizontal', 0, '2·7'],
    ['long-edge', 'vertical', 180, '7·2'],
  ] as const)('bound at the head, turned on the %s of a portrait sheet', (turn, axis, degrees, inside) => {
    const made = plan(8, { turn }, 0, { first: 'lower', spine: 'head', facing: true });
    expect(made.turnAxis).toBe(axis);
    const [{ front, back }] = twoSided(made) as [ReturnType<typeof twoSided>[0]];
    expect([positions(front.cells), positions(back.cells)]).toEqual(['8·1', inside]);
    expect(front.cells.map((cell) => cell.turn)).toEqual([0, 0]);
    expect(back.cells.map((cell) => cell.turn)).toEqual([degrees, degrees]);
    for (const { cells } of [front, back]) expect(cells[0]!.trim.y0).toBeCloseTo(cells[1]!.trim.y1, 9);
  });

  test('portrait sheets turn about the other axis', () => {
    const wide = workOut(docketOf([takeInStep('a')]), {
      [hashOf('a')]: plainSurvey(4, { width: mm(100), height: mm(210) }),
    }).list;
    expect(planSheets(wide, { ...DEFAULT_SCHEME, stock: { width: mm(225), height: mm(320) } })).toMatchObject(
      { turnAxis: 'horizontal', sheet: { width: mm(225) } },
    );
  });

  test('bleed stops at the fold, marks keep clear of it, and a gap is split between both pages', () => {
    for (const turn of ['short-edge', 'long-edge'] as const) {
      const made = plan(4, { turn, gap: mm(4) }, mm(3));
      for (const side of [twoSided(made)[0]!.front, twoSided(made)[0]!.back]) {
        const [left, right] = side.cells as [Cell, Cell];
        expect(right.trim.x0 - left.trim.x1).toBeCloseTo(mm(4), 9);
        expect(left.clip.x1).toBeCloseTo(made.sheet.width / 2, 9);
        expect(left.trim.x0 - left.clip.x0).toBeCloseTo(mm(3), 9);
        for (const { kind, ...line } of side.lines.filter((line) => line.kind !== 'fold'))
          for (const cell of side.cells) {
            const met = intersect(cell.clip, line);
            expect(widthOf(met) + heightOf(met), kind).toBeCloseTo(0, 9);
            expect(contains(sizeBox(made.sheet), line)).toBe(true);
          }
      }
    }
  });

  test('the plan turned upside down is the plan of the other turning edge', () => {
    const [short, long] = [plan(8), plan(8, { turn: 'long-edge' })];
    const turned = twoSided(short)[0]!
      .back.cells.map((cell) => applyToBox(turnMatrix(sizeBox(short.sheet), 180), cell.trim))
      .reverse();
    twoSided(long)[0]!.back.cells.forEach((cell, i) => expect(cell.trim.x0).toBeCloseTo(turned[i]!.x0, 9));
  });
});
