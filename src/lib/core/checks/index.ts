import { replay, type Replay } from '../docket/replay';
import type { Docket } from '../docket/docket';
import type { Surveys } from '../model/survey';
import { sheetsOf } from '../sheets';
import { active } from './active';
import { bleed } from './bleed';
import { cover } from './cover';
import { drawn } from './drawn';
import { faces } from './faces';
import { files } from './files';
import { folds } from './folds';
import { inks } from './inks';
import { keptPairs } from './keptPairs';
import { lines } from './lines';
import { pairs } from './pairs';
import { panels } from './panels';
import { scans } from './scans';
import { sheets } from './sheets';
import { sizes } from './sizes';
import { steps } from './steps';
import type { JobState, MendOf } from './finding';

/** Every family of findings, in the order in which they are told: a new one is a file here, one in words/checks, and its line. */
export const CHECKS = [
  steps,
  files,
  active,
  pairs,
  keptPairs,
  scans,
  sizes,
  panels,
  bleed,
  drawn,
  lines,
  inks,
  faces,
  sheets,
  folds,
  cover,
] as const;

type Kinds = (typeof CHECKS)[number];
/** Anything that is found, as code and data. */
export type Finding = ReturnType<Kinds['check']>[number];
/** What would put one right. */
export type Mend = MendOf<NonNullable<Kinds['types']>['mends']>;

/** A job worked out: its pages, its sheets, and all that was found. */
export interface WorkedOut extends JobState {
  readonly findings: readonly Finding[];
}

/**
 * Works a job out from its two parts, re-using what `before` still holds true. The sheets and the findings are worked out
 * when they are first asked for.
 */
export function workOut(docket: Docket, surveys: Surveys, before?: Replay): WorkedOut {
  const done = replay(docket, surveys, before);
  let plan: { sheets: JobState['plan'] } | undefined;
  let findings: readonly Finding[] | undefined;
  const work: WorkedOut = {
    docket,
    surveys,
    replay: done,
    list: done.list,
    get plan() {
      return (plan ??= { sheets: sheetsOf(done.list, docket, surveys) }).sheets;
    },
    get findings() {
      return (findings ??= CHECKS.flatMap(({ check }): Finding[] => check(work)));
    },
  };
  return work;
}
