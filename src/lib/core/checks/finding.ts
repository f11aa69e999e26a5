import type { Book, PageList } from '../model/page';
import type { Surveys } from '../model/survey';
import type { Docket } from '../docket/docket';
import type { Replay } from '../docket/replay';
import type { Step, StepDraft } from '../docket/steps';
import type { SheetPlan } from '../sheets/plan';
import type { PressScheme, Signatures } from '../sheets/schemes';

/** How grave: the work will be wrong, it should be looked at, or it is good to know. */
export type Level = 'stop' | 'look' | 'note';
export type Stage = 'take-in' | 'pages' | 'numbers' | 'sheets' | 'dummy' | 'hand-over';

/** What would put a finding right: steps for the docket's end, steps in place of those with their ids, or a change of scheme or book. */
export interface MendOf<Code extends string> {
  code: Code;
  steps?: readonly StepDraft[];
  change?: readonly Step[];
  scheme?: Partial<PressScheme> | Partial<Signatures>;
  book?: Partial<Book>;
  data?: Readonly<Record<string, string | number>>;
}

/** What is found, as a code and its data; the wording lives in the room `words`. Lengths in points. */
interface Coded {
  code: string;
}

/** One thing that will go wrong, where, and what would mend it. */
export type FindingOf<Found extends Coded, Mends extends string> = Found & {
  level: Level;
  stage: Stage;
  /** Ids of the pages concerned. */
  pages: readonly string[];
  step?: string;
  mend?: MendOf<Mends>;
  /** A second way to mend it. */
  otherMend?: MendOf<Mends>;
};

/** All that a check may look at. */
export interface JobState {
  docket: Docket;
  surveys: Surveys;
  replay: Replay;
  list: PageList;
  readonly plan: SheetPlan | undefined;
}

/** Finds what one family knows of in a job; `Others` are findings of another family that it makes too. */
export type Check<Found extends Coded, Mends extends string, Others = never> = (
  state: JobState,
) => (FindingOf<Found, Mends> | Others)[];

/** One family of findings. */
export interface CheckKind<Kind extends string, Found extends Coded, Mends extends string, Others = never> {
  kind: Kind;
  check: Check<Found, Mends, Others>;
  /** Never there: it carries the types of the family to whoever words it. */
  types?: { found: Found; mends: Mends };
}
