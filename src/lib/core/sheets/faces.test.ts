import fc from 'fast-check';
import { expect, test } from 'vitest';
import { A5, bookOf, docketOf, hashOf, plainSurvey, takeInStep } from '../../../../tests/makers';
import { workOut } from '../checks';
import type { Step } from '../docket/steps';
import { applyToBox, applyToPoint, translate, type Matrix } from '../measure/matrix';
import { mm } from '../measure/unit';
import { coverPages } from '../pages/cover';
import { facesOf, SPINES } from '../pages/page';
import type { Cell, Sheet, SheetPlan } from './plan';
import { PLAIN_SCHEMES, WORK_STYLES, type Scheme } from './scheme';

const stock = { width: mm(2000), height: mm(2200), caliper: 0.28 };
const press = fc.record({
  stock: fc.constant(stock),
  turn: fc.constantFrom('short-edge' as const, 'long-edge' as const),
  work: fc.option(fc.constantFrom(...WORK_STYLES), { nil: undefined }),
  turned: fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const),
  copies: fc.constantFrom(undefined, { across: 2, up: 1 }, 'most' as const),
});
const signature = fc.constantFrom(4 as const, 8 as const, 16 as const);
const pad = fc.constantFrom('before-last' as const, 'end' as const);
const schemes: fc.Arbitrary<Scheme> = fc.oneof(
  fc
    .tuple(press, signature, pad)
    .map(([p, s, end]): Scheme => ({ ...PLAIN_SCHEMES.stitched, ...p, signature: s, pad: end })),
  fc
    .tuple(press, signature, pad, fc.constantFrom('smaller' as const, 'blanks' as const))
    .map(([p, s, end, last]): Scheme => ({
      ...PLAIN_SCHEMES.signatures,
      ...p,
      signature: s,
      pad: end,
      last,
    })),
  fc.tuple(press, fc.constantFrom('repeat', 'sequence', 'stack', 'gang')).map(([p, arrange]): Scheme => ({
    ...PLAIN_SCHEMES.flat,
    ...p,
    arrange: arrange as 'gang',
    copies: 'most',
  })),
  fc
    .tuple(press, fc.constantFrom('sides' as const, 'panels' as const))
    .map(([p, pages]): Scheme => ({ ...PLAIN_SCHEMES.leaflet, ...p, pages })),
  fc.constant<Scheme>(PLAIN_SCHEMES.spreads),
  fc.constant<Scheme>(PLAIN_SCHEMES.single),
);
const drafts = fc.record({
  scheme: schemes,
  spine: fc.constantFrom(...SPINES),
  facing: fc.boolean(),
  pages: fc.integer({ min: 1, max: 40 }),
  panels: fc.uniqueArray(fc.integer({ min: 1, max: 40 }), { maxLength: 3 }),
  cover: fc.boolean(),
});
type Draft = typeof drafts extends fc.Arbitrary<infer T> ? T : never;
function jobOf({ scheme, spine, facing, pages, panels, cover }: Draft) {
  const first = ({ left: 'right', right: 'left', head: 'lower' } as const)[spine];
  const steps: Step[] = [takeInStep('a')];
  if (cover && scheme.kind === 'signatures' && pages > 8)
    steps.push({
      id: 'c',
      kind: 'cover',
      pages: `${pages - 3}-${pages}`,
      parts: ['front', 'inside-front', 'inside-back', 'back'],
    });
  for (const [n, at] of panels.entries())
    if (at <= pages)
      steps.push({
        id: `p${n}`,
        kind: 'panel',
        pages: `${at}`,
        count: 1 + (at % 2),
        allowance: mm(2),
        folds: 'front',
      });
  return workOut(docketOf(steps, { scheme, book: bookOf(first, { spine, facing }) }), {
    [hashOf('a')]: plainSurvey(pages, A5),
  });
}
const jobs = drafts.map(jobOf);

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
    { numRuns: 400 },
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
    { numRuns: 400 },
  );
  expect(pairs).toBeGreaterThan(5000);
});

test('bound at the right everything is the mirror of what it is bound at the left, and the same is found', () => {
  const bound = drafts.filter(({ scheme }) => scheme.kind === 'stitched' || scheme.kind === 'signatures');
  fc.assert(
    fc.property(bound, (draft) => {
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
  });
  expect(plan!.sheets.map(({ front, back }) => [front.cells.length, back!.cells.length])).toEqual([[3, 3]]);
  expect(plan!.blanksAdded).toBe(1);
});
