import fc from 'fast-check';
import { workOut } from '../src/lib/core/checks';
import type { Step } from '../src/lib/core/docket/steps';
import type { PatternChoice } from '../src/lib/core/fold/patterns';
import { mm } from '../src/lib/core/measure/unit';
import { SPINES } from '../src/lib/core/model/page';
import { WORK_STYLES } from '../src/lib/core/sheets/pressTerms';
import { PLAIN_SCHEMES, type Scheme } from '../src/lib/core/sheets/schemes';
import type { Given } from './outside';
import { A5, bookOf, docketOf, hashOf, survey, surveyPage, takeInStep } from './makers';

/** Jobs over all schemes, spines, work styles, copies and turns, with fold-outs, covers and an odd page. */
export const stock = { width: mm(2000), height: mm(2200), caliper: 0.28 };
const press = fc.record({
  stock: fc.constant(stock),
  turn: fc.constantFrom('short-edge' as const, 'long-edge' as const),
  work: fc.option(fc.constantFrom(...WORK_STYLES), { nil: undefined }),
  turned: fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const),
  copies: fc.constantFrom(undefined, { across: 2, up: 1 }, 'most' as const),
  between: fc.constantFrom(undefined, mm(6), mm(10)),
  lay: fc.constantFrom(undefined, 'left' as const, 'right' as const),
  gripper: fc.constantFrom(undefined, mm(10)),
});
const signature = fc.constantFrom(4 as const, 8 as const, 16 as const);
const creep = fc.option(
  fc.record({ by: fc.constantFrom('shift' as const, 'scale' as const), caliper: fc.constant(mm(0.1)) }),
  { nil: undefined },
);
const off = fc.constantFrom(0, mm(2), mm(3));
const pad = fc.constantFrom('before-last' as const, 'end' as const);
/** Usual folds of a leaflet. */
export const usualFolds: fc.Arbitrary<PatternChoice> = fc.constantFrom(
  { fold: 'half' },
  { fold: 'letter' },
  { fold: 'gate' },
  { fold: 'closed-gate' },
  { fold: 'double-parallel' },
  { fold: 'french' },
  { fold: 'accordion', panels: 5 },
  { fold: 'roll', panels: 4 },
  { fold: 'map', columns: 4, rows: 3 },
  { fold: 'right-angle', pages: 16 },
);
const schemes: fc.Arbitrary<Scheme> = fc.oneof(
  fc.tuple(press, signature, pad, creep, off).map(([p, s, end, by, cut]): Scheme => ({
    ...PLAIN_SCHEMES.stitched,
    ...p,
    signature: s,
    pad: end,
    gap: cut,
    cutOff: cut,
    ...(by ? { creep: by } : {}),
  })),
  fc
    .tuple(press, signature, pad, fc.constantFrom('smaller' as const, 'blanks' as const), off, creep)
    .map(([p, s, end, last, roughing, by]): Scheme => ({
      ...PLAIN_SCHEMES.signatures,
      ...p,
      signature: s,
      pad: end,
      last,
      roughing,
      ...(by ? { creep: by } : {}),
    })),
  fc.tuple(press, fc.constantFrom('repeat', 'sequence', 'stack', 'gang')).map(([p, arrange]): Scheme => ({
    ...PLAIN_SCHEMES.flat,
    ...p,
    arrange: arrange as 'gang',
    copies: 'most',
  })),
  fc
    .tuple(press, fc.constantFrom('sides' as const, 'panels' as const), usualFolds)
    .map(([p, pages, pattern]): Scheme => ({ ...PLAIN_SCHEMES.leaflet, ...p, pages, pattern })),
  fc.constant<Scheme>(PLAIN_SCHEMES.spreads),
  fc.constant<Scheme>(PLAIN_SCHEMES.single),
);
export const drafts = fc.record({
  scheme: schemes,
  spine: fc.constantFrom(...SPINES),
  facing: fc.boolean(),
  pages: fc.integer({ min: 1, max: 40 }),
  panels: fc.uniqueArray(fc.integer({ min: 1, max: 40 }), { maxLength: 3 }),
  cover: fc.boolean(),
  /** A page that is smaller than the others. */
  small: fc.option(fc.integer({ min: 1, max: 40 }), { nil: undefined }),
});
export type Draft = typeof drafts extends fc.Arbitrary<infer T> ? T : never;
/**
 * `narrow` makes leaves with fold-outs narrower than the book, so that the knife does not open them; `given` is a file that is there
 * in place of one that is only surveyed.
 */
export function jobOf(
  { scheme, spine, facing, pages, panels, cover, small }: Draft,
  narrow = false,
  given?: Pick<Given, 'hash' | 'survey'>,
) {
  const first = ({ left: 'right', right: 'left', head: 'lower' } as const)[spine];
  const takeIn = takeInStep('a');
  const steps: Step[] = [given ? ({ ...takeIn, source: given.hash } as Step) : takeIn];
  if (cover && scheme.kind === 'signatures' && pages > 8)
    steps.push({
      id: 'c',
      kind: 'cover',
      pages: `${pages - 3}-${pages}`,
      parts: ['front', 'inside-front', 'inside-back', 'back'],
    });
  for (const [n, at] of panels.entries())
    if (at <= pages) {
      const front = at - ((at + 1) % 2);
      if (narrow)
        steps.push({
          id: `n${n}`,
          kind: 'trim',
          pages: `${front}-${Math.min(pages, front + 1)}`,
          width: A5.width - mm(6),
          height: A5.height,
          content: 'hold',
          fixed: { x: 'spine', y: 'centre' },
        } as Step);
      steps.push({
        id: `p${n}`,
        kind: 'panel',
        pages: `${at}`,
        count: 1 + (at % 2),
        allowance: mm(2),
        folds: at % 3 ? 'front' : 'back',
      });
    }
  return workOut(docketOf(steps, { scheme, book: bookOf(first, { spine, facing }) }), {
    [given?.hash ?? hashOf('a')]:
      given?.survey ??
      survey(
        Array.from({ length: pages }, (_, n) =>
          surveyPage(n + 1 === small ? { width: A5.width - mm(12), height: A5.height - mm(20) } : A5),
        ),
      ),
  });
}
