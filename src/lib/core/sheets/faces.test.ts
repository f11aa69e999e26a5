import fc from 'fast-check';
import { expect, test } from 'vitest';
import { bookOf, docketOf, hashOf, plainSurvey, takeInStep } from '../../../../tests/makers';
import { foldsOfPlan } from '../../../../tests/foldsOfPlan';
import { drafts, jobOf, stock, usualFolds } from '../../../../tests/randomJobs';
import { workOut } from '../checks';
import type { Step } from '../docket/steps';
import { applyToBox, applyToPoint, translate, type Matrix } from '../measure/matrix';
import { mm } from '../measure/unit';
import { coverPages } from '../pages/coverParts';
import { facesOf } from '../pages/page';
import { patternOf, turnedPattern } from '../fold/patterns';

import type { Cell, Sheet, SheetPlan } from './plan';
import { PLAIN_SCHEMES, type Scheme } from './schemes';

const jobs = drafts.map((draft) => jobOf(draft));
/** Work that lies in the middle of its sheet: what is at one side of it, or keeps clear of a gripper, is no mirror of itself. */
const centred = drafts.map((draft) => {
  const { lay: _, gripper: __, ...scheme } = draft.scheme as Record<'lay' | 'gripper', unknown> & Scheme;
  return { ...draft, scheme: scheme as Scheme };
});

/** The cells of a sheet by side, each with its middle and where its head points, as the front is seen through the paper. */
function throughPaper({ front, back, size }: Sheet, axis: SheetPlan['turnAxis']) {
  const behind: Matrix = axis === 'vertical' ? [-1, 0, 0, 1, size.width, 0] : [1, 0, 0, -1, 0, size.height];
  const seen = (cells: readonly Cell[], matrix: Matrix) =>
    cells.map((cell) => {
      const box = applyToBox(matrix, cell.trim);
      const at = (x: number, y: number) => {
        const on = applyToPoint(cell.matrix, x, y);
        return applyToPoint(matrix, on.x, on.y);
      };
      const [from, to] = [at(0, 0), at(0, 1)];
      return {
        cell,
        middle: { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 },
        head: `${Math.round(to.x - from.x)} ${Math.round(to.y - from.y)}`,
      };
    });
  return { fronts: seen(front.cells, translate(0, 0)), backs: seen(back?.cells ?? [], behind) };
}

test('no face is lost in silence: each lies on the sheets as often as it is to, or a stop names it', () => {
  fc.assert(
    fc.property(jobs, ({ list, plan, findings }) => {
      const cells = new Map<string, number>();
      for (const { front, back } of plan!.sheets)
        for (const { page } of [...front.cells, ...(back?.cells ?? [])])
          if (page) cells.set(page.id, (cells.get(page.id) ?? 0) + 1);
      const said = new Set(
        findings.flatMap(({ code, level, pages }) =>
          level === 'stop' && (code === 'face-lost' || code === 'face-uneven') ? pages : [],
        ),
      );
      const copies = plan!.copies.across * plan!.copies.up;
      const lies = copies * (plan!.gang?.each[0] ?? 1);
      const wanted = (id: string, count: number) =>
        said.has(id) ? cells.get(id) !== count : cells.get(id) === count;
      for (const { id } of facesOf(list)) expect([id, wanted(id, lies)]).toEqual([id, true]);
      const onCover = plan!.cover ? plan!.cover.plan.copies.across * plan!.cover.plan.copies.up : 0;
      for (const { page } of coverPages(list))
        expect([page.id, wanted(page.id, onCover)]).toEqual([page.id, true]);
    }),
    { numRuns: 250 },
  );
});

test('what lies behind a page is the back of its leaf: heads together, or head to foot where leaves turn upwards', () => {
  let pairs = 0;
  fc.assert(
    fc.property(jobs, ({ list, plan, docket: { scheme } }) => {
      const isPair = scheme.kind !== 'flat' || list.book.facing;
      const leafOf = new Map<string, string>();
      const leaf = plan!.pages.filter(({ page }) => !page?.panel);
      leaf.forEach(({ page, position }) => {
        if (page) leafOf.set(page.id, `leaf ${isPair ? Math.ceil(position / 2) : position}`);
      });
      for (const { id, panel } of list.panels ?? []) leafOf.set(id, `panel ${panel!.id}`);
      for (const { part, page } of coverPages(list)) leafOf.set(page.id, part.replace('inside-', ''));
      const all = [
        ...plan!.sheets.slice(0, plan!.sheetCount).map((sheet) => ({ sheet, axis: plan!.turnAxis })),
        ...(plan!.cover?.plan.sheets ?? []).map((sheet) => ({ sheet, axis: plan!.cover!.plan.turnAxis })),
      ];
      for (const { sheet, axis } of all) {
        const { fronts, backs } = throughPaper(sheet, axis);
        for (const one of fronts) {
          const two = backs.find(
            ({ middle }) => Math.hypot(middle.x - one.middle.x, middle.y - one.middle.y) < 1,
          );
          if (!one.cell.page || !two?.cell.page) continue;
          pairs++;
          const turned = one.head
            .split(' ')
            .map((n) => `${-Number(n) + 0}`)
            .join(' ');
          // Panels of a leaflet lie as its folds have them.
          if (scheme.kind !== 'leaflet' || scheme.pages === 'sides')
            expect(leafOf.get(two.cell.page.id)).toBe(leafOf.get(one.cell.page.id));
          expect(two.head).toBe(list.book.spine === 'head' ? turned : one.head);
        }
      }
    }),
    { numRuns: 250 },
  );
  expect(pairs).toBeGreaterThan(3000);
});

test('bound at the right everything is the mirror of what it is bound at the left, and the same is found', () => {
  fc.assert(
    fc.property(centred, (draft) => {
      // Work-and-turn has fronts on the left half of the sheet, however the book is bound.
      const work =
        'work' in draft.scheme && draft.scheme.work !== 'work-and-turn' ? draft.scheme.work : undefined;
      const scheme = { ...draft.scheme, work, turned: 0 } as Scheme;
      const [left, right] = (['left', 'right'] as const).map((spine) => jobOf({ ...draft, scheme, spine }));
      const where = ({ plan }: typeof left & object, mirror: boolean) =>
        plan!.sheets.map(({ front, back, size }) =>
          [front, back].map((side) =>
            (side?.cells ?? [])
              .map(({ name, trim, turn }) => {
                const x = mirror ? size.width - trim.x1 : trim.x0;
                return `${name} ${Math.round(x)} ${Math.round(trim.y0)} ${turn}`;
              })
              .sort(),
          ),
        );
      // Cells of flat work are filled from the corner that was named, the panels of a leaflet from the left.
      if (draft.scheme.kind !== 'flat' && draft.scheme.kind !== 'leaflet')
        expect(where(right!, true)).toEqual(where(left!, false));
      const codes = ({ findings }: typeof left & object) => findings.map(({ code }) => code).sort();
      expect(codes(right!)).toEqual(codes(left!));
    }),
    { numRuns: 200 },
  );
});

test('a book of one page with a fold-out is one strip, its back blank', () => {
  const { plan } = jobOf({
    scheme: PLAIN_SCHEMES.signatures,
    spine: 'left',
    facing: true,
    pages: 1,
    panels: [1],
    cover: false,
    small: undefined,
  });
  expect(plan!.sheets.map(({ front, back }) => [front.cells.length, back!.cells.length])).toEqual([[3, 3]]);
  expect(plan!.blanksAdded).toBe(1);
});

/** A sheet's cells by side, the sheet turned clockwise by so much. */
function lying({ front, back, size: { width, height } }: Sheet, by: 0 | 90 | 270): string[][] {
  const said = ({ name, trim: { x0, y0, x1, y1 }, turn }: Cell) => {
    const at = {
      0: [x0, y0, x1, y1],
      90: [y0, width - x1, y1, width - x0],
      270: [height - y1, x0, height - y0, x1],
    }[by];
    return `${name} ${at.map((n) => Math.round(n)).join(' ')} ${(turn + by) % 360}`;
  };
  return [front, back].map((side) => (side?.cells ?? []).map(said).sort());
}
const said = ({ findings }: ReturnType<typeof jobOf>): string[] =>
  findings.map(({ code, level }) => `${level} ${code}`).sort();
/** Sides, clockwise. */
const ROUND = ['left', 'head', 'right', 'foot'] as const;

test('the work turned by a quarter on its sheet is the same sheet turned, folded the same, and the same is found', () => {
  fc.assert(
    fc.property(centred, (draft) => {
      if (!('stock' in draft.scheme)) return;
      const { copies, work, turned = 0 } = draft.scheme;
      // Of a plate that prints both sides, the right and the upper half lie on their faces.
      const by = work === 'work-and-tumble' ? 90 : 270;
      // What is turned over about the upright axis is turned over about the level one once it lies the other way.
      const over = { 'work-and-turn': 'work-and-tumble', 'work-and-tumble': 'work-and-turn' } as const;
      const quarter = {
        ...draft.scheme,
        turned: (turned + by) % 360,
        ...(typeof copies === 'object' ? { copies: { across: copies.up, up: copies.across } } : {}),
        ...(work ? { work: work in over ? over[work as 'work-and-turn'] : work } : {}),
      } as Scheme;
      const [one, two] = [jobOf(draft), jobOf({ ...draft, scheme: quarter })];
      expect(said(two)).toEqual(said(one));
      const [a, b] = [one.plan!, two.plan!];
      // A cover goes through the press by itself.
      const own = ({ sheets, sheetCount }: SheetPlan) => sheets.slice(0, sheetCount);
      expect(own(b).map((sheet) => lying(sheet, 0))).toEqual(own(a).map((sheet) => lying(sheet, by)));
      const folds = (plan: SheetPlan, turn: 0 | 90 | 270) =>
        foldsOfPlan(plan).map(({ folds: all, sheets, cutFirst }) => [
          sheets,
          cutFirst,
          ...all.map(({ moves, goes, layers }) => [
            ROUND[(ROUND.indexOf(moves) + turn / 90) % 4],
            goes,
            layers,
          ]),
        ]);
      expect(folds(b, 0)).toEqual(folds(a, by));
    }),
    { numRuns: 150 },
  );
});

test('turned about the other edge, what is on a sheet lies behind the same front, is folded the same, and the same is found', () => {
  const sheetwise = centred.filter(
    ({ scheme }) => 'work' in scheme && (scheme.work ?? 'sheetwise') === 'sheetwise',
  );
  fc.assert(
    fc.property(sheetwise, (draft) => {
      const [one, two] = (['short-edge', 'long-edge'] as const).map((turn) =>
        jobOf({ ...draft, scheme: { ...draft.scheme, turn } as Scheme }),
      ) as [ReturnType<typeof jobOf>, ReturnType<typeof jobOf>];
      expect(said(two)).toEqual(said(one));
      expect(foldsOfPlan(two.plan!)).toEqual(foldsOfPlan(one.plan!));
      const seen = ({ plan }: typeof one) =>
        plan!.sheets.slice(0, plan!.sheetCount).map((sheet) => {
          const { fronts, backs } = throughPaper(sheet, plan!.turnAxis);
          return [fronts, backs].map((side) =>
            side
              .map(
                ({ cell, middle: { x, y }, head }) =>
                  `${cell.name} ${Math.round(x)} ${Math.round(y)} ${head}`,
              )
              .sort(),
          );
        });
      expect(seen(two)).toEqual(seen(one));
    }),
    { numRuns: 100 },
  );
});

test('a leaflet folded across is one folded along, turned: the same is found, and the folds are the same', () => {
  const off = fc.array(fc.constantFrom(0, 0, mm(1), mm(-1), mm(2)), { minLength: 5, maxLength: 5 });
  fc.assert(
    fc.property(
      usualFolds,
      off,
      fc.constantFrom('outside' as const, 'inside' as const),
      (choice, offs, first) => {
        const { columns, rows, folds } = patternOf(choice);
        const long = (shares: readonly number[], whole: number) => {
          const all = shares.reduce((sum, each) => sum + each, 0);
          return shares.map((share, n) => (share * whole) / all + offs[n % 5]!);
        };
        const sum = (lengths: readonly number[]) => lengths.reduce((all, each) => all + each, 0);
        const along = { columns: long(columns, mm(400)), rows: long(rows, mm(210)), folds };
        const jobs = [along, turnedPattern(along)].map((pattern) =>
          workOut(
            docketOf([takeInStep('a')], {
              book: bookOf('right', { facing: false }),
              scheme: {
                ...PLAIN_SCHEMES.leaflet,
                stock,
                first,
                pattern: {
                  ...pattern,
                  fold: 'own',
                  name: 'x',
                  columns: [...pattern.columns],
                  rows: [...pattern.rows],
                  folds: [...pattern.folds],
                },
              },
            }),
            { [hashOf('a')]: plainSurvey(2, { width: sum(pattern.columns), height: sum(pattern.rows) }) },
          ),
        );
        const [one, two] = jobs as [(typeof jobs)[0], (typeof jobs)[0]];
        expect(said(two)).toEqual(said(one));
        const told = ({ plan }: typeof one, by: number) =>
          foldsOfPlan(plan!).map(({ folds: all }) =>
            all.map(({ moves, goes, layers }) => [ROUND[(ROUND.indexOf(moves) + by) % 4], goes, layers]),
          );
        expect(told(two, 0)).toEqual(told(one, 1));
      },
    ),
    { numRuns: 200 },
  );
});

test('the first pages are the inside: the same leaflet as with its two sides the other way round', () => {
  const list = ['outside', 'inside'].map((first) =>
    workOut(
      docketOf(
        [
          takeInStep('a'),
          ...(first === 'inside'
            ? [{ id: 'm', kind: 'move', pages: '4-6', where: { at: 'start' } } as Step]
            : []),
        ],
        {
          book: bookOf('right', { facing: false }),
          scheme: { ...PLAIN_SCHEMES.leaflet, pages: 'panels', first: first as 'inside' },
        },
      ),
      { [hashOf('a')]: plainSurvey(6, { width: mm(99), height: mm(210) }) },
    ),
  );
  const where = ({ plan }: (typeof list)[0]) =>
    plan!.sheets.map(({ front, back }) =>
      [front, back!].map(({ cells }) => cells.map(({ page, trim, turn }) => [page!.id, trim, turn])),
    );
  expect(where(list[1]!)).toEqual(where(list[0]!));
});

test('a narrower page of a book bound at the head stands at its spine and at the left, as its back does behind it', () => {
  const { plan } = jobOf({
    scheme: PLAIN_SCHEMES.stitched,
    spine: 'head',
    facing: true,
    pages: 4,
    panels: [],
    cover: false,
    small: 1,
  });
  const [{ front }] = plan!.sheets as [Sheet];
  const [small, other] = [1, 4].map((n) => front.cells.find(({ position }) => position === n)!);
  expect([small!.turn, other!.turn]).toEqual([0, 0]);
  expect(small!.trim.x0).toBeCloseTo(other!.trim.x0, 6);
  expect(small!.trim.y1).toBeCloseTo(other!.trim.y0, 6);
});
