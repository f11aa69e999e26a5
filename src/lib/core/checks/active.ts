import type { ActiveKind } from '../model/survey';
import type { Check, CheckKind, FindingOf } from './finding';

/** What this family finds. */
type Found = { code: 'active-content'; name: string; kinds: readonly ActiveKind[] };
/** Faces that lie on no cell, and why: a fold-out, a back of work printed on one side, a part of a cover, or for no reason known. */
type Finding = FindingOf<Found, never>;

/** Files that can do something besides being looked at: none of it goes out, which is told here. */
const checkActive: Check<Found, never> = ({ docket, surveys, list }) => {
  const told = new Set<string>();
  return docket.steps.flatMap((step): Finding[] => {
    if (step.kind !== 'take-in' || step.off || told.has(step.source)) return [];
    told.add(step.source);
    const kinds = surveys[step.source]?.active ?? [];
    if (!kinds.length) return [];
    const pages = list.pages.filter(({ art }) => art?.source === step.source).map(({ id }) => id);
    return [
      {
        code: 'active-content',
        name: step.name,
        kinds,
        level: 'note',
        stage: 'take-in',
        pages,
        step: step.id,
      },
    ];
  });
};

/** The family of these findings. */
export const active: CheckKind<'active', Found, never> = { kind: 'active', check: checkActive };
