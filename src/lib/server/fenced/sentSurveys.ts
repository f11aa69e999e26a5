import { outputKind, type Output } from '../../core/handover/outputs';
import { readBySteps } from '../../core/pages/drawn';
import type { Drawn, Survey, SurveyPage, Surveys } from '../../core/model/survey';
import { entryAt } from '../../core/entries';

/** Where its photograph lies is of no use for making anything, and each page has its own. */
type Plain = Omit<SurveyPage, 'drawn' | 'jpeg'>;

/** Surveys as a task carries them: most pages of a file are alike, and each kind of page is said once. */
export type SentSurveys = Record<
  string,
  Omit<Survey, 'pages'> & { kinds: Plain[]; pages: [kind: number, drawn?: Drawn][] }
>;

/** Surveys for a task that makes an output; of what was measured, only what that output needs. */
export function sendSurveys(surveys: Surveys, output: Output): SentSurveys {
  const { tellsFindings } = outputKind(output.kind);
  const needed = (drawn: Drawn) => (tellsFindings ? drawn : readBySteps(drawn));
  return Object.fromEntries(
    Object.entries(surveys).map(([source, { pages, ...rest }]) => {
      const kinds = new Map<string, { n: number; plain: Plain }>();
      const sent = pages.map(({ drawn, jpeg: _, ...plain }): [number, Drawn?] => {
        const key = JSON.stringify(plain);
        const kind = kinds.get(key) ?? { n: kinds.size, plain };
        kinds.set(key, kind);
        return drawn ? [kind.n, needed(drawn)] : [kind.n];
      });
      return [source, { ...rest, kinds: [...kinds.values()].map(({ plain }) => plain), pages: sent }];
    }),
  );
}

/** The surveys that were sent. */
export const receiveSurveys = (sent: SentSurveys): Surveys =>
  Object.fromEntries(
    Object.entries(sent).map(([source, { kinds, pages, ...rest }]) => [
      source,
      {
        ...rest,
        pages: pages.map(([n, drawn]) => (drawn ? { ...entryAt(kinds, n), drawn } : entryAt(kinds, n))),
      },
    ]),
  );
