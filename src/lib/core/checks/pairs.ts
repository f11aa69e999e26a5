import type { CoverPart } from '../model/page';
import { frontSide, sideOf } from '../pages/page';
import type { PageList, Side } from '../model/page';
import type { Check, CheckKind, FindingOf } from './finding';
import { entryAt, firstOf, lastOf } from '../entries';
import type { StepDraft } from '../docket/steps';

/** What this family finds. */
type Found = { code: 'pairs-apart'; name: string; side: Side };
type Mends = 'blank-inside-covers' | 'make-cover';
type Finding = FindingOf<Found, Mends>;

/** Shortest run of one source's pages that can be a finished interior with pairs of its own. */
const SHORTEST_INTERIOR = 4;

/**
 * A finished interior whose first page, made for the front of a leaf, lies on a back: every pair of facing pages has come apart.
 * Happens when one cover page is put in front of it. Mend by practice: one blank inside each cover.
 */
const checkPairs: Check<Found, Mends> = ({ list, docket }) =>
  interiors(list).flatMap(({ first, last, source }): Finding[] => {
    if (!list.book.facing || sideOf(first, list.book) === frontSide(list.book)) return [];
    const taken = docket.steps.find((step) => step.kind === 'take-in' && step.source === source);
    const ids = list.pages.slice(first, last + 1).map((page) => page.id);
    const steps: StepDraft[] = [
      { kind: 'blank', count: 1, where: { at: 'before', pages: { ids: [firstOf(ids)] } } },
    ];
    if (last < list.pages.length - 1)
      steps.push({ kind: 'blank', count: 1, where: { at: 'after', pages: { ids: [lastOf(ids)] } } });
    return [
      {
        code: 'pairs-apart',
        side: frontSide(list.book),
        name: taken?.kind === 'take-in' ? taken.name : '',
        level: 'stop',
        stage: 'pages',
        pages: ids,
        mend: { code: 'blank-inside-covers', steps, data: { count: steps.length } },
        ...(docket.scheme.kind === 'signatures' ? asCover(list, first, last) : {}),
      },
    ];
  });

/** Pages around an interior made the cover of a bound book, if there are as many as one has. */
function asCover({ pages }: PageList, first: number, last: number): Pick<Finding, 'otherMend'> {
  const [before, after] = [pages.slice(0, first), pages.slice(last + 1)];
  if (before.length > 2 || after.length > 2) return {};
  const parts: CoverPart[] = [
    ...(['front', 'inside-front'] as const).slice(0, before.length),
    ...(['inside-back', 'back'] as const).slice(2 - after.length),
  ];
  const ids = [...before, ...after].map(({ id }) => id);
  return { otherMend: { code: 'make-cover', steps: [{ kind: 'cover', pages: { ids }, parts }] } };
}

/** Whole interiors: runs of one source's pages in their own order, beginning with its first. */
function interiors({ pages }: PageList): { first: number; last: number; source: string }[] {
  const runs: { first: number; last: number; source: string }[] = [];
  for (let first = 0; first < pages.length; first++) {
    const art = entryAt(pages, first).art;
    if (art?.index !== 0) continue;
    let last = first;
    while (
      pages[last + 1]?.art?.source === art.source &&
      entryAt(pages, last + 1).art!.index === last + 1 - first
    )
      last++;
    if (last - first + 1 >= SHORTEST_INTERIOR) runs.push({ first, last, source: art.source });
    first = last;
  }
  return runs;
}

/** The family of these findings. */
export const pairs: CheckKind<'pairs', Found, Mends> = { kind: 'pairs', check: checkPairs };
