import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bookOf, docketOf, hashOf, plainSurvey, takeInStep } from '../../../../tests/makers';
import { planOf, pressOf, shownOn, wrongWith } from '../../../../tests/finished';
import { drafts, jobOf } from '../../../../tests/randomJobs';
import { readTicket } from '../../../../tests/readTicket';
import { ticketPlan } from '../../words/ticket';
import { workOut, type WorkedOut } from '../checks';
import { sizeBox } from '../measure/box';
import { applyToBox, compose, translate, type Matrix } from '../measure/matrix';
import { mm } from '../measure/unit';
import type { ByHand } from '../sheets/pressTerms';
import { DEFAULT_SCHEME, PLAIN_SCHEMES, type Scheme } from '../sheets/schemes';
import type { Finished } from './line/finished';
import { runLine } from './line/runLine';
import { finishPlanSchema, type FinishPlan, type Operation } from './operations';

/** Jobs of which most can be made: leaves that carry fold-outs turn sideways, and books have leaves. */
const makable = drafts.map((draft) => ({
  ...draft,
  facing: draft.facing || draft.scheme.kind !== 'flat',
  // Of few pages the odd one may be taken for the usual one.
  small:
    draft.scheme.kind === 'leaflet' || draft.scheme.kind === 'flat' || draft.pages < 4
      ? undefined
      : draft.small,
  spine: draft.panels.length && draft.spine === 'head' ? ('left' as const) : draft.spine,
}));
/** Stops that name what is odd, and can be folded all the same. */
const ODD = ['bleed-off-sheet', 'mixed-sizes', 'leaf-two-sizes'];
const canBeMade = ({ findings }: WorkedOut): boolean =>
  findings.every(({ level, code }) => level !== 'stop' || ODD.includes(code));

test('whatever is planned, who follows the finishing plan gets all pages in their order, upright and in their place', () => {
  const made = new Map<string, number>();
  fc.assert(
    fc.property(makable, (draft) => {
      const job = jobOf(draft, true);
      // What cannot be made is said before anything is printed.
      if (!canBeMade(job)) return;
      const finish = planOf(job);
      expect(finishPlanSchema.parse(finish)).toEqual(finish);
      const out = runLine(finish);
      expect(out.length).toBeGreaterThan(0);
      const press = pressOf(job.plan!);
      for (const each of out) {
        expect(wrongWith(job, each, press)).toEqual([]);
        expect(each.joined).toEqual([]);
      }
      const tips = finish.operations.some(({ kind }) => kind === 'tip-in');
      for (const key of [
        draft.scheme.kind,
        ...(job.plan!.cover ? ['cover'] : []),
        ...(tips ? ['tip-in'] : []),
      ])
        made.set(key, (made.get(key) ?? 0) + 1);
    }),
    { numRuns: Number(process.env.FINISH_RUNS ?? 300) },
  );
  for (const kind of ['stitched', 'signatures', 'leaflet', 'flat', 'cover', 'tip-in'])
    expect([kind, made.has(kind)]).toEqual([kind, true]);
});

/** What stands on a ticket, line after line, without the heads of its pages. */
const said = (work: WorkedOut): string =>
  ticketPlan(work, new Date(0))
    .sheets.map(({ front }) =>
      front.marks!.flatMap((item) => (item.kind === 'text' ? [item.text] : [])).filter((_, n) => n > 1),
    )
    .flat()
    .join('\n');

test('who knows nothing but what the ticket says gets them too', () => {
  let read = 0;
  fc.assert(
    fc.property(makable, (draft) => {
      const job = jobOf(draft, true);
      if (!canBeMade(job) || !('stock' in draft.scheme)) return;
      const finish = planOf(job);
      const told = { ...finish, operations: readTicket(said(job)) };
      const press = pressOf(job.plan!);
      // Lengths are said to a thousandth of a millimetre: cuts after cuts add up.
      for (const each of runLine(told)) expect(wrongWith(job, each, press, 4.2)).toEqual([]);
      expect(runLine(told).map(({ product, copy, pages }) => [product, copy, pages.length])).toEqual(
        runLine(finish).map(({ product, copy, pages }) => [product, copy, pages.length]),
      );
      read++;
    }),
    { numRuns: Number(process.env.TICKET_RUNS ?? 80) },
  );
  // Half of them go through no press, or cannot be made.
  expect(read).toBeGreaterThan(10);
});

describe('what is wrong is found', () => {
  const book = (kind: 'stitched' | 'signatures', byHand?: ByHand[]) =>
    workOut(
      docketOf([takeInStep('a')], {
        book: bookOf('right'),
        scheme: {
          ...PLAIN_SCHEMES[kind],
          stock: { width: mm(640), height: mm(900) },
          signature: 8,
          cutOff: mm(3),
          ...(byHand ? { byHand } : {}),
        } as Scheme,
      }),
      { [hashOf('a')]: plainSurvey(24) },
    );
  const kinds = fc.constantFrom('stitched' as const, 'signatures' as const);
  const cell = fc.record({
    sheet: fc.integer({ min: 1, max: 3 }),
    side: fc.constantFrom('front' as const, 'back' as const),
    cell: fc.integer({ min: 1, max: 4 }),
  });
  /** All that is wrong with the one book that comes out. */
  const wrong = (job: WorkedOut, finish = planOf(job), press = pressOf(job.plan!)) =>
    runLine(finish).flatMap((each) => [
      ...wrongWith(job, each, press, 0.2),
      ...each.joined.map((pair) => `joined ${pair.join(' ')}`),
    ]);

  test('cells swapped, turned or left out by hand: at their pages and nowhere else', () => {
    const change = fc.oneof(
      cell.map((at): ByHand => ({ do: 'turn', at })),
      cell.map((at): ByHand => ({ do: 'leave-out', at })),
      fc
        .tuple(cell, cell)
        .filter(([a, b]) => JSON.stringify(a) !== JSON.stringify(b))
        .map(([at, other]): ByHand => ({ do: 'swap', at, with: other })),
    );
    fc.assert(
      fc.property(kinds, change, (kind, one) => {
        const job = book(kind, [one]);
        const found = wrong(job);
        expect(found).toHaveLength(one.do === 'swap' ? 2 : 1);
        const places = job.plan!.hand!.changed.map(({ place }) => place.position);
        const said = found.map((text) => {
          const { leaf, face } = JSON.parse(/\{.*?\}/.exec(text)![0]) as { leaf: number; face: string };
          return 2 * leaf + (face === 'front' ? 1 : 2);
        });
        expect(said.sort()).toEqual(places.sort());
      }),
      { numRuns: 100 },
    );
  });

  test('a page printed a millimetre off, or mirrored', () => {
    const spoil = fc.constantFrom<Matrix>(
      translate(mm(1), 0),
      translate(0, mm(-1)),
      [-1, 0, 0, 1, mm(148), 0],
      [1, 0, 0, -1, 0, mm(210)],
    );
    fc.assert(
      fc.property(kinds, fc.integer({ min: 1, max: 24 }), spoil, (kind, position, by) => {
        const job = book(kind);
        const press = pressOf(job.plan!, (each) =>
          each.position === position ? { ...each, matrix: compose(by, each.matrix) } : each,
        );
        expect(wrong(job, planOf(job), press)).toHaveLength(1);
      }),
      { numRuns: 60 },
    );
  });

  /** The plan with one of its operations changed. */
  const but = <Kind extends Operation['kind']>(
    finish: FinishPlan,
    kind: Kind,
    change: (operation: Extract<Operation, { kind: Kind }>) => Operation,
  ): FinishPlan => ({
    ...finish,
    operations: finish.operations.map((each) =>
      each.kind === kind ? change(each as Extract<Operation, { kind: Kind }>) : each,
    ),
  });
  const swapped = <T>(list: readonly T[], a: number, b: number): T[] =>
    list.map((each, n) => (n === a ? list[b]! : n === b ? list[a]! : each));

  test('folded in another order, to the other side or off its line; gathered or nested in another order; cut off its line', () => {
    for (const kind of ['stitched', 'signatures'] as const) {
      const job = book(kind);
      const finish = planOf(job);
      expect(wrong(job)).toEqual([]);
      const spoilt = [
        but(finish, 'fold', (fold) => ({ ...fold, folds: swapped(fold.folds, 0, 1) })),
        ...[0, 1].map((n) =>
          but(finish, 'fold', (fold) => ({
            ...fold,
            folds: fold.folds.map((each, k) => (k === n ? { ...each, goes: 'over' as const } : each)),
          })),
        ),
        ...[0, 1].map((n) =>
          but(finish, 'fold', (fold) => ({
            ...fold,
            folds: fold.folds.map((each, k) => (k === n ? { ...each, at: each.at + mm(1) } : each)),
          })),
        ),
        ...[
          [0, 1],
          [1, 2],
        ].map(([a, b]) =>
          but(
            but(finish, 'nest', (nest) => ({ ...nest, sheets: swapped(nest.sheets, a!, b!) })),
            'gather',
            (gather) => ({
              ...gather,
              sheets: swapped(gather.sheets, a!, b!),
            }),
          ),
        ),
        but(finish, 'trim', (trim) => ({ ...trim, size: { ...trim.size, width: trim.size.width - mm(1) } })),
        // Heads stay closed where nothing is cut off.
        { ...finish, operations: finish.operations.filter(({ kind: each }) => each !== 'trim') },
      ];
      spoilt
        .slice(0, -1)
        .forEach((each, n) => expect([kind, n, wrong(job, each).length > 0]).toEqual([kind, n, true]));
    }
  });

  test('turned over about the other edge of the sheet', () => {
    for (const kind of ['stitched', 'signatures'] as const) {
      const job = book(kind);
      const other = { vertical: 'horizontal', horizontal: 'vertical' } as const;
      const plan = { ...job.plan!, sheets: job.plan!.sheets, turnAxis: other[job.plan!.turnAxis] };
      expect(wrong(job, planOf(job), pressOf(plan)).length).toBeGreaterThan(8);
    }
  });
});

// Sum: the n-th leaf lies inside n others, each 0.1 mm thick; so far it is pushed out, and so much is cut off its page.
test('leaves nested in others are pushed out by their thickness, unless the pages are moved in by it', () => {
  const pushedBy = (creep: boolean): number[] => {
    const job = workOut(
      docketOf([takeInStep('a')], {
        book: bookOf('right'),
        scheme: {
          ...DEFAULT_SCHEME,
          stock: { width: mm(450), height: mm(320), caliper: mm(0.1) },
          ...(creep ? { creep: { by: 'shift' } } : {}),
        },
      }),
      { [hashOf('a')]: plainSurvey(32) },
    );
    const press = pressOf(job.plan!);
    const [{ pages }] = runLine(planOf(job)) as [Finished];
    return pages.map((page) => {
      const { x0, x1 } = applyToBox(shownOn(press, page)!.way, sizeBox({ width: mm(148), height: 1 }));
      const isRecto = 'leaf' in page.at && page.at.face === 'front';
      return (isRecto ? x1 - page.size.width : -x0) / mm(1);
    });
  };
  const within = (n: number) => 0.1 * Math.min(Math.floor(n / 2), 15 - Math.floor(n / 2));
  pushedBy(false).forEach((by, n) => expect(by).toBeCloseTo(within(n), 6));
  pushedBy(true).forEach((by) => expect(by).toBeCloseTo(0, 6));
});
