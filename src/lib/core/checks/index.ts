import { replay, type Replay } from '../docket/replay';
import type { Docket } from '../docket/docket';
import type { Surveys } from '../pages/survey';
import { sheetsOf } from '../sheets';
import { checkActive } from './active';
import { checkBleed } from './bleed';
import { checkCover } from './cover';
import { checkDrawn } from './drawn';
import type { Check, Finding, JobState } from './finding';
import { checkFaces } from './faces';
import { checkFiles } from './files';
import { checkFolds } from './folds';
import { checkInks, checkOverprint } from './inks';
import { checkKeptPairs } from './keptPairs';
import { checkFixedSide, checkLines, checkOverlays } from './lines';
import { checkPairs } from './pairs';
import { checkPanels } from './panels';
import { checkScans } from './scans';
import { checkSheets } from './sheets';
import { checkSizes } from './sizes';
import { checkSteps } from './steps';

/** Every family of findings; a new one is one new file and one line here. */
const CHECKS: readonly Check[] = [
  checkSteps,
  checkFiles,
  checkActive,
  checkPairs,
  checkKeptPairs,
  checkScans,
  checkSizes,
  checkPanels,
  checkBleed,
  checkDrawn,
  checkLines,
  checkFixedSide,
  checkOverlays,
  checkInks,
  checkOverprint,
  checkFaces,
  checkSheets,
  checkFolds,
  checkCover,
];

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
      return (findings ??= CHECKS.flatMap((check) => check(work)));
    },
  };
  return work;
}
