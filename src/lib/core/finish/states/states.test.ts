import fc from 'fast-check';
import { expect, test } from 'vitest';
import { planOf } from '../../../../../tests/finished';
import { drafts, jobOf, stock } from '../../../../../tests/randomJobs';
import { entryAt, lastOf } from '../../entries';
import { edgesOf, FoldError, foldStates } from '../../fold/fold';
import { PLAIN_SCHEMES, type Scheme } from '../../sheets/schemes';
import { PLAIN_ERRORS, withErrors } from '../errors';
import { heightOf, overlap, widthOf, type Box } from '../../measure/box';
import { applyToPoint, invert, type Matrix } from '../../measure/matrix';
import { outlineOf } from '../line/paper';
import { runLine } from '../line/runLine';
import type { Placed } from './placed';
import { applyPose, poseBetween, poseOf, type Pose } from './pose';
import { sheetsToFollow, type DummyState } from './states';
import { Timeline } from './timeline';

const middleOf = ({ x0, x1, y0, y1 }: Box) => [(x0 + x1) / 2, (y0 + y1) / 2] as const;
const matrixOf = ([x, y]: Pose): Matrix => [x[0], y[0], x[1], y[1], x[3], y[3]];
const paper = ({ parts }: Pick<DummyState, 'parts'>) => parts.filter(({ waste }) => !waste);
const holding = (parts: readonly Placed[], sheet: number, x: number, y: number) =>
  parts.find(
    (part) =>
      part.sheet === sheet && x > part.flat.x0 && x < part.flat.x1 && y > part.flat.y0 && y < part.flat.y1,
  );
const areaOf = (parts: readonly Placed[]) =>
  parts.reduce((sum, { flat }) => sum + widthOf(flat) * heightOf(flat), 0);

test('whatever is planned, on whatever paper, what is done to it can be told and shown', () => {
  const shares = fc.constantFrom(1, 0.4, 0.15, 0.03);
  fc.assert(
    fc.property(drafts, shares, (draft, share) => {
      const { scheme } = draft;
      const small = { ...stock, width: stock.width * share, height: stock.height * share };
      const job = jobOf('stock' in scheme ? { ...draft, scheme: { ...scheme, stock: small } } : draft, true);
      if (!job.plan) return;
      const finish = planOf(job);
      for (const sheet of sheetsToFollow(finish).slice(0, 2))
        expect(new Timeline(finish, sheet).states.length).toBeGreaterThan(0);
    }),
    { numRuns: 150 },
  );
});

test('every state after a fold is the one that the fold engine works out: the place, the face and the height of each panel', () => {
  let compared = 0;
  fc.assert(
    fc.property(drafts, (draft) => {
      const job = jobOf(draft, true);
      if (!job.plan?.foldings.length) return;
      const finish = planOf(job);
      for (const folding of job.plan.foldings.slice(0, 2)) {
        const { states } = new Timeline(finish, folding.sheet);
        const first = states.findIndex(({ fold }) => fold);
        if (first < 1) continue;
        const isCut = finish.operations.some(
          (each) => (each.kind === 'cut' || each.kind === 'cut-out') && each.sheets.includes(folding.sheet),
        );
        // What is cut out first is folded upright; a whole sheet as it comes from the press.
        const { pattern } = isCut ? entryAt(job.plan.foldedFrom(folding.sheet - 1), 0) : folding;
        let engine: ReturnType<typeof foldStates>;
        try {
          engine = foldStates(pattern, pattern.folds);
        } catch (error) {
          if (error instanceof FoldError) continue;
          throw error;
        }
        const [xs, ys] = [edgesOf(pattern.columns), edgesOf(pattern.rows)];
        for (const whole of paper(entryAt(states, first - 1))) {
          // Piles that are alike are folded one after the other.
          const begun = states.findIndex(
            (state, n) =>
              n >= first && paper(state).filter(({ flat }) => overlap(flat, whole.flat)).length > 1,
          );
          const open = paper(entryAt(states, Math.max(begun, first) - 1)).find(({ flat }) =>
            overlap(flat, whole.flat),
          )!;
          const lies = outlineOf(open);
          const isIt =
            Math.abs(widthOf(lies) - lastOf(xs)) < 0.01 && Math.abs(heightOf(lies) - lastOf(ys)) < 0.01;
          if (!isIt) continue;
          expect(begun).toBeGreaterThanOrEqual(first);
          engine.slice(1).forEach(({ stack }, n) => {
            const parts = paper(entryAt(states, begun + n)).filter(({ flat }) => overlap(flat, open.flat));
            expect(parts.length).toBeGreaterThanOrEqual(2);
            const toFlat = poseOf(open);
            const met = stack.map(({ column, row, matrix }, facet) => {
              const flat = { x: (xs[column]! + xs[column + 1]!) / 2, y: (ys[row]! + ys[row + 1]!) / 2 };
              // The same place on the sheet, by how the piece lay before its first fold.
              const { x, y } = applyToPoint(invert(matrixOf(toFlat)), flat.x + lies.x0, flat.y + lies.y0);
              const part = holding(parts, open.sheet, x, y)!;
              const wanted = applyToPoint(matrix, flat.x, flat.y);
              const [px, py] = applyPose(poseOf(part), [x, y, 0]);
              return { part, facet, dx: px - wanted.x, dy: py - wanted.y };
            });
            for (const { part, facet, dx, dy } of met) {
              expect([dx, dy]).toEqual([expect.closeTo(met[0]!.dx, 3), expect.closeTo(met[0]!.dy, 3)]);
              // As it lay, its own face was up: it is turned over as often as the engine says.
              expect((part.up === open.up) === (entryAt(stack, facet).up === 'front')).toBe(true);
            }
            for (const a of met)
              for (const b of met)
                if (a.facet < b.facet && a.part !== b.part && overlap(outlineOf(a.part), outlineOf(b.part)))
                  expect(a.part.from).toBeGreaterThan(b.part.from);
            compared++;
          });
        }
      }
    }),
    { numRuns: 120 },
  );
  expect(compared).toBeGreaterThan(100);
});

test('paper on its way stays as it is and does not tear; nothing of a sheet is lost by cutting it', () => {
  let hinges = 0;
  fc.assert(
    fc.property(drafts, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (draft, t) => {
      const job = jobOf(draft, true);
      if (!job.plan) return;
      const finish = planOf(job);
      const { states } = new Timeline(finish, 1);
      const whole = areaOf(entryAt(states, 0).parts);
      states.slice(1).forEach((state, n) => {
        const was = paper(entryAt(states, n));
        const kind = entryAt(finish.operations, state.operation).kind;
        if (kind === 'cut' || kind === 'cut-out') expect(areaOf(state.parts)).toBeCloseTo(whole, 0);
        // Whatever is done, a part on its way keeps its size.
        for (const { from, to, pose } of state.parts.flatMap((part) => {
          const met = holding(was, part.sheet, ...middleOf(part.flat));
          return met && !part.waste
            ? [{ from: met, to: part, pose: poseBetween({ ...met, flat: part.flat }, part, t) }]
            : [];
        })) {
          const { x0, x1, y0, y1 } = to.flat;
          const [a, b] = [applyPose(pose, [x0, y0, 0]), applyPose(pose, [x1, y1, 0])];
          expect([from.sheet, Math.hypot(...a.map((each, k) => each - b[k]!))]).toEqual([
            to.sheet,
            expect.closeTo(Math.hypot(x1 - x0, y1 - y0), 2),
          ]);
        }
        if (!state.fold) return;
        expect(areaOf(state.parts)).toBeCloseTo(areaOf(was), 0);
        const under = state.fold.goes === 'under';
        const high = Math.max(...state.parts.map(({ from, thick }) => from + thick));
        const moves = state.parts.map((part) => {
          const [x, y] = middleOf(part.flat);
          const start = { ...holding(was, part.sheet, x, y)!, flat: part.flat };
          const at = (px: number, py: number) => applyPose(poseBetween(start, part, t, under), [px, py, 0]);
          const { x0, x1, y0, y1 } = part.flat;
          const [a, b] = [at(x0, y0), at(x1, y1)];
          expect(Math.hypot(...a.map((each, k) => each - b[k]!))).toBeCloseTo(
            Math.hypot(x1 - x0, y1 - y0),
            2,
          );
          return { part, start, at };
        });
        for (const a of moves)
          for (const b of moves) {
            const { x0, y0, x1, y1 } = b.part.flat;
            const isBeside =
              a !== b &&
              Math.abs(a.part.flat.x1 - x0) < 0.01 &&
              overlap({ x0: 0, x1: 1, y0, y1 }, { ...a.part.flat, x0: 0, x1: 1 });
            const isAbove =
              a !== b &&
              Math.abs(a.part.flat.y1 - y0) < 0.01 &&
              overlap({ y0: 0, y1: 1, x0, x1 }, { ...a.part.flat, y0: 0, y1: 1 });
            if (!isBeside && !isAbove) continue;
            const [x, y] = isBeside ? [x0, (y0 + y1) / 2] : [(x0 + x1) / 2, y0];
            const gap = (one: readonly number[], other: readonly number[]) =>
              Math.hypot(...one.map((each, k) => each - other[k]!));
            const apart = gap(applyPose(poseOf(a.start), [x, y, 0]), applyPose(poseOf(b.start), [x, y, 0]));
            if (apart > 2 * high) continue;
            expect(gap(a.at(x, y), b.at(x, y))).toBeLessThan(4 * high + 0.01);
            hinges++;
          }
      });
    }),
    { numRuns: 120 },
  );
  expect(hinges).toBeGreaterThan(100);
});

test('who pages through a book that lies on the mat sees its leaves in their order, upright, on top', () => {
  let books = 0;
  fc.assert(
    fc.property(drafts, (draft) => {
      const job = jobOf(draft, true);
      const { scheme } = job.docket;
      if (!job.plan || (scheme.kind !== 'stitched' && scheme.kind !== 'signatures')) return;
      const finish = planOf(job);
      const timeline = new Timeline(finish, 1);
      const { book } = timeline;
      if (!book) return;
      const [out] = runLine(finish);
      const leaves = out!.pages.flatMap(({ at, ...page }) =>
        'leaf' in at && at.panel === undefined ? [{ at, page }] : [],
      );
      const covers = book.turning.filter(({ cover }) => cover).length / 2;
      const many = book.turning.length - 2 * covers;
      expect(leaves.length).toBe(2 * many);
      for (const { at, page } of leaves) {
        const open = covers + at.leaf + (at.face === 'back' ? 1 : 0);
        const parts = timeline.at(timeline.made + open).parts;
        const [x, y] = middleOf(page.flat);
        const part = holding(parts, page.sheet, x, y)!;
        expect([part.up, part.flat]).toEqual([page.face, page.flat]);
        expect(part.matrix.slice(0, 4)).toEqual(
          page.matrix.slice(0, 4).map((each) => expect.closeTo(each, 6)),
        );
        // With what folds out of it folded in, it may be covered by that alone.
        const over = parts.filter(
          (other) => other.from > part.from && overlap(outlineOf(other), outlineOf(part)),
        );
        const own = book.turning[covers + at.leaf]!.parts;
        expect(
          over.every((other) => own.some(({ sheet, flat }) => sheet === other.sheet && flat === other.flat)),
        ).toBe(true);
      }
      books++;
    }),
    { numRuns: 80 },
  );
  expect(books).toBeGreaterThan(15);
});

test('machines that err change what they are said to, by as much: pages come out larger, cuts and folds elsewhere, sheets in another order', () => {
  const job = jobOf(
    {
      ...fc.sample(drafts, { seed: 5, numRuns: 1 })[0]!,
      pages: 32,
      scheme: { ...PLAIN_SCHEMES.signatures, stock, signature: 16 } as Scheme,
    },
    true,
  );
  const finish = planOf(job);
  const plain = runLine(finish)[0]!;
  expect(withErrors(finish, PLAIN_ERRORS)).toEqual(finish);
  const knife = runLine(withErrors(finish, { ...PLAIN_ERRORS, knife: 3 }))[0]!;
  expect([knife.size.width - plain.size.width, knife.size.height - plain.size.height].sort()).toEqual([
    expect.closeTo(3, 6),
    expect.closeTo(6, 6),
  ]);
  // The trim's lines lie around the old ones: the middle of the page is where it was across.
  const gathered = runLine(withErrors(finish, { ...PLAIN_ERRORS, gathered: true }))[0]!;
  expect(gathered.pages[0]!.sheet).toBe(2);
  const folded = withErrors(finish, { ...PLAIN_ERRORS, fold: 2 });
  const places = (plan: typeof finish) =>
    plan.operations.flatMap((each) => (each.kind === 'fold' ? each.folds.map(({ at }) => at) : []));
  expect(places(folded)).toEqual(places(finish).map((at) => expect.closeTo(at + 2, 6)));
});
