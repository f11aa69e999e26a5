import { workOut, type WorkedOut } from '../core/checks';
import type { Docket } from '../core/docket/docket';
import { surveySchema, type Surveys } from '../core/model/survey';
import { sayFinding } from '../words/checks';
import type { Language } from '../words/language';
import { speakIn } from './speech';
import type { Told } from '../wire/told';
import { summarise } from './summary';
import type { JobSummary } from '../wire/told';

/** What the list of jobs shows of a job, and what was found in it, in words. */
export interface Judged {
  summary: JobSummary;
  findings: Told;
}

export const judgedOf = (work: WorkedOut): Judged => ({
  summary: summarise(work),
  findings: work.findings.map((finding) => ({
    level: finding.level,
    title: sayFinding(finding, work.docket.unit).title,
  })),
});

/** A docket and the surveys of its sources by their SHA-256, all as JSON. */
export interface ToJudge {
  docket: string;
  surveys: Record<string, string>;
  /** In which the findings are said. */
  language: Language;
}

export const judgeText = ({ docket, surveys, language }: ToJudge): Judged => {
  const read: Surveys = Object.fromEntries(
    Object.entries(surveys).map(([sha256, survey]) => [sha256, surveySchema.parse(JSON.parse(survey))]),
  );
  const own: Docket = JSON.parse(docket);
  return speakIn(language, () => judgedOf(workOut(own, read)));
};
