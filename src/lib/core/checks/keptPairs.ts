import { replay } from '../docket/replay';
import { spreadsOf } from '../pages/leaves';
import type { PageList } from '../model/page';
import type { Check, CheckKind, FindingOf, JobState, MendOf } from './finding';
import { entryAt, entryOf } from '../entries';
import type { StepDraft } from '../docket/steps';

/** What this family finds. */
type Found = { code: 'kept-pair-split'; pairs: number; first: number; lost: boolean };
type Mends = 'blank-for-pairs';
type Finding = FindingOf<Found, Mends>;
type Mend = MendOf<Mends>;

/** Kept pairs that a step has split: said at that step, all of its pairs together. */
const checkKeptPairs: Check<Found, Mends> = (state) => {
  const split = splitPairs(state.list);
  if (!split.size) return [];
  return [...bySplitter([...split.keys()], state)].map(([step, pairs]): Finding => {
    const pages = pairs.flatMap((pair) => entryOf(split, pair));
    const lost = pairs.some((pair) => entryOf(split, pair).length < 2);
    const mend = lost ? undefined : mendOf(pages, state);
    return {
      code: 'kept-pair-split',
      pairs: pairs.length,
      first: state.list.pages.findIndex(({ id }) => pages.includes(id)) + 1,
      lost,
      level: 'stop',
      stage: 'pages',
      pages,
      ...(step ? { step } : {}),
      ...(mend ? { mend } : {}),
    };
  });
};

/** Kept pairs whose pages do not face each other, with the ids of the pages that are still there. */
function splitPairs(list: PageList): Map<string, string[]> {
  const all = new Map<string, string[]>();
  for (const { kept, id } of list.pages) if (kept) all.set(kept, [...(all.get(kept) ?? []), id]);
  if (list.book.facing)
    for (const spread of spreadsOf(list.pages.length, list.book)) {
      const [a, b] = Object.values(spread).map((index) => entryAt(list.pages, index));
      if (a?.kept && a.kept === b?.kept) all.delete(a.kept);
    }
  return all;
}

/** Pairs by the id of the step after which they were never whole again. */
function bySplitter(
  pairs: readonly string[],
  { docket, replay: { after } }: JobState,
): Map<string | undefined, string[]> {
  const found = new Map<string | undefined, string[]>();
  let open = pairs;
  for (let n = after.length - 1; n >= 0 && open.length; n--) {
    const kept = new Set(entryAt(after, n).pages.map((page) => page.kept));
    const apart = splitPairs(entryAt(after, n));
    const whole = open.filter((pair) => kept.has(pair) && !apart.has(pair));
    if (whole.length) found.set(docket.steps[n + 1]?.id, whole);
    open = open.filter((pair) => !whole.includes(pair));
  }
  return open.length ? found.set(undefined, [...(found.get(undefined) ?? []), ...open]) : found;
}

/** Blanks that bring all pairs together again: one before the first of them, or one more after the last. */
function mendOf(pages: readonly string[], state: JobState): Mend | undefined {
  const { list } = state;
  const inOrder = list.pages.filter(({ id }) => pages.includes(id));
  const [first, last] = [inOrder[0], inOrder.at(-1)];
  if (!first || !last) return undefined;
  const before: StepDraft = { kind: 'blank', count: 1, where: { at: 'before', pages: { ids: [first.id] } } };
  const after: StepDraft = { kind: 'blank', count: 1, where: { at: 'after', pages: { ids: [last.id] } } };
  for (const steps of [[before], [before, after]])
    if (mends(steps, state)) return { code: 'blank-for-pairs', steps, data: { count: steps.length } };
  return undefined;
}

function mends(steps: readonly StepDraft[], { docket, surveys, replay: done }: JobState): boolean {
  const tried = {
    ...docket,
    steps: [...docket.steps, ...steps.map((step, n) => ({ ...step, id: `try:${n}` }))],
  };
  return splitPairs(replay(tried, surveys, done).list).size === 0;
}

/** The family of these findings. */
export const keptPairs: CheckKind<'kept-pairs', Found, Mends> = { kind: 'kept-pairs', check: checkKeptPairs };
