import type { Check, Finding } from './finding';

/** Files that can do something besides being looked at: none of it goes out, which is told here. */
export const checkActive: Check = ({ docket, surveys, list }) => {
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
