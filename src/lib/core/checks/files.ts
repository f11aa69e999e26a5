import { sourcesNamed } from '../docket/docket';
import { coverPages } from '../pages/coverParts';
import { artsOf, facesOf, laidOn } from '../pages/page';
import type { Page } from '../model/page';
import type { SurveyPage } from '../model/survey';
import type { Check, CheckKind, FindingOf } from './finding';

/** What this family finds. */
type Found = {
  code: 'page-broken' | 'file-rebuilt' | 'resolution-unstated' | 'annotations-print' | 'annotations-screen';
  name: string;
};
type Finding = FindingOf<Found, never>;

/** Files that were damaged, pages that are not whole or cannot be drawn, and annotations that print or do not. */
const checkFiles: Check<Found, never> = ({ list, surveys, docket }) => {
  const shown = [...facesOf(list), ...coverPages(list).map(({ page }) => page)];
  return sourcesNamed(docket).flatMap(({ source, name, off }): Finding[] => {
    const survey = surveys[source];
    if (!survey || off) return [];
    const at = { stage: 'take-in' as const, name };
    const of = (indexes: ReadonlySet<number>): string[] => idsOf(shown, source, indexes);
    const those = (is: (page: SurveyPage) => unknown) =>
      of(new Set(survey.pages.flatMap((page, index) => (is(page) ? [index] : []))));
    const findings: Finding[] = [];
    const broken = those(({ incomplete, drawn }) => incomplete ?? drawn?.unreadable);
    if (broken.length) findings.push({ ...at, code: 'page-broken', level: 'stop', pages: broken });
    if (survey.rebuilt)
      findings.push({ ...at, code: 'file-rebuilt', level: 'look', pages: those(() => true) });
    if (survey.picture && !survey.picture.stated) {
      const guessed = docket.steps.some(
        (step) => step.kind === 'take-in' && step.source === source && !step.ppi && !step.off,
      );
      const pages = those(() => true);
      if (guessed && pages.length)
        findings.push({ ...at, code: 'resolution-unstated', level: 'look', pages });
    }
    const { print = [], screen = [] } = survey.annotations ?? {};
    const drawn = of(new Set(print));
    if (drawn.length) findings.push({ ...at, code: 'annotations-print', level: 'note', pages: drawn });
    const left = of(new Set(screen));
    if (left.length) findings.push({ ...at, code: 'annotations-screen', level: 'note', pages: left });
    return findings;
  });
};

/** The pages that show some pages of a source, or have them laid on them. */
const idsOf = (pages: readonly Page[], source: string, indexes: ReadonlySet<number>): string[] =>
  indexes.size
    ? pages
        .filter((page) =>
          [...artsOf(page), ...laidOn(page)].some((art) => art.source === source && indexes.has(art.index)),
        )
        .map(({ id }) => id)
    : [];

/** The family of these findings. */
export const files: CheckKind<'files', Found, never> = { kind: 'files', check: checkFiles };
