import type { Size } from '../measure/box';
import type { Purpose } from '../numbers/laid';
import type { Face } from '../numbers/faces';
import type { CoverPart } from '../pages/cover';
import type { Book, PageList, Side } from '../pages/page';
import type { SelectionError } from '../pages/selection';
import type { ActiveKind, Surveys } from '../pages/survey';
import type { Docket } from '../docket/docket';
import type { Replay } from '../docket/replay';
import type { StepProblem } from '../docket/stepKind';
import type { Step } from '../docket/steps';
import type { SheetPlan } from '../sheets/plan';
import type { FoldError } from '../fold/fold';
import type { PressScheme, Signatures, Stitched } from '../sheets/scheme';

/** How grave: the work will be wrong, it should be looked at, or it is good to know. */
export type Level = 'stop' | 'look' | 'note';
export type Stage = 'take-in' | 'pages' | 'numbers' | 'sheets' | 'hand-over';

/** A step without its id, which whoever puts it on the docket gives it. */
export type StepDraft = Step extends infer Each ? (Each extends Step ? Omit<Each, 'id'> : never) : never;

/** What would put a finding right: steps for the docket's end, steps in place of those with their ids, or a change of scheme or book. */
export interface Mend {
  code:
    | 'blank-inside-covers'
    | 'commonest-size'
    | 'turn-like-rest'
    | 'same-leaf-size'
    | 'larger-sheet'
    | 'first-side'
    | 'fill-with-blanks'
    | 'mirror-bleed'
    | 'enlarge-bleed'
    | 'narrow-panel'
    | 'panel-height'
    | 'narrow-leaf'
    | 'blank-for-pairs'
    | 'other-face'
    | 'outer-edge'
    | 'one-ink'
    | 'overprint'
    | 'worked-widths'
    | 'creep-by-scale'
    | 'turn-work'
    | 'make-cover'
    | 'cover-to-sum'
    | 'worked-spine'
    | 'both-sides'
    | 'loose-pages'
    | 'as-planned'
    | 'drop-gone';
  steps?: readonly StepDraft[];
  change?: readonly Step[];
  scheme?: Partial<PressScheme> | Partial<Signatures>;
  book?: Partial<Book>;
  data?: Readonly<Record<string, string | number>>;
}

/** What was found, as code and data; its wording lives in the room `words`. Lengths in points. */
export type Found =
  | { code: 'step-failed'; problem: StepProblem | SelectionError; kind: Step['kind'] }
  | { code: 'mixed-sizes'; commonest: Size; sizes: number }
  | { code: 'leaf-two-sizes'; front: Size; back: Size }
  | { code: 'bleed-missing' }
  | { code: 'bleed-short'; wanted: number; there: number }
  | { code: 'over-safe-area'; safe: number; nearest: number; part?: CoverPart }
  | { code: 'low-resolution'; ppi: number; part?: CoverPart }
  | { code: 'panel-too-wide'; width: number; over: number }
  | { code: 'panel-height'; height: number; leaf: number }
  | { code: 'fold-at-trim'; width: number; book: number }
  | { code: 'panels-meet'; together: number; space: number }
  | { code: 'panel-one-face'; given: number }
  | { code: 'kept-pair-split'; pairs: number; first: number; lost: boolean }
  | { code: 'sheet-missing' | 'sheet-doubled'; numbers: readonly number[] }
  | { code: 'scan-unsure'; scans: readonly number[] }
  | { code: 'order-differs'; agree: number; differ: number }
  | { code: 'pairs-apart'; name: string; side: Side }
  | { code: 'blanks-wanted'; count: number; total: number; by: number; pad: Stitched['pad'] }
  | { code: 'first-page-side'; side: Side }
  | { code: 'lines-near-trim' | 'lines-in-spine'; safe: number; nearest: number }
  | { code: 'lines-on-art' | 'lines-meet' }
  | { code: 'glyph-missing'; chars: readonly string[]; face: Face }
  | { code: 'folio-fixed-side'; side: 'left' | 'right' }
  | { code: 'spots-alike'; names: readonly string[] }
  | { code: 'rgb-content' }
  | { code: 'knocks-out'; purpose: Purpose }
  | { code: 'overlay-larger'; overlay: Size; page: Size }
  | { code: 'sheet-too-small'; sheet: Size; needed: Size; of?: 'cover' }
  | { code: 'bleed-off-sheet'; sheet: Size; needed: Size; of?: 'cover' }
  | { code: 'marks-off-sheet'; sheet: Size; needed: Size; of?: 'cover' }
  | { code: 'fold-impossible'; error: FoldError }
  | { code: 'fold-in-tight'; axis: 'vertical' | 'horizontal'; panel: number; room: number; wanted: number }
  | { code: 'panels-missing'; given: number; each: number }
  | { code: 'creep-over-safe'; wanted: number; done: number; leaves: number }
  | { code: 'cover-unplanned' | 'spine-unknown' }
  | { code: 'cover-missing' | 'cover-bare'; parts: readonly CoverPart[] }
  | {
      code: 'cover-size';
      part: CoverPart;
      size: Size;
      wanted: Size;
      /** Of a whole side: what its width is the sum of. */
      sum?: { page: number; spine: number; flap: number };
    }
  | { code: 'cover-bleed'; part: CoverPart; there: number; wanted: number }
  | { code: 'spine-impossible'; width: number; leaves: number; leaf: number }
  | { code: 'spine-differs'; typed: number; worked: number }
  | { code: 'spine-text-large'; height: number; room: number }
  | {
      code: 'by-hand';
      places: readonly { place: string; shows?: string; turned: boolean }[];
      folded: boolean;
    }
  | { code: 'by-hand-gone'; count: number }
  | { code: 'active-content'; name: string; kinds: readonly ActiveKind[] }
  /** Faces that lie on no cell, and why: a fold-out, a back of work printed on one side, a part of a cover, or for no reason known. */
  | { code: 'face-lost'; why: 'fold-out' | 'one-side' | 'cover' | 'place'; faces: readonly string[] }
  | { code: 'face-uneven'; faces: readonly { name: string; there: number; wanted: number }[] }
  | { code: 'page-broken' | 'file-rebuilt' | 'annotations-print' | 'annotations-screen'; name: string }
  | { code: 'gang-apart'; wanted: readonly number[]; sheets: readonly number[] }
  | { code: 'marks-dropped'; marks: readonly ('registration' | 'bar' | 'slug')[] }
  | { code: 'caliper-unknown' }
  | { code: 'across-grain' };

/** One thing that will go wrong, where, and what would mend it. */
export type Finding = Found & {
  level: Level;
  stage: Stage;
  /** Ids of the pages concerned. */
  pages: readonly string[];
  step?: string;
  mend?: Mend;
  /** A second way to mend it. */
  otherMend?: Mend;
};

/** All that a check may look at. */
export interface JobState {
  docket: Docket;
  surveys: Surveys;
  replay: Replay;
  list: PageList;
  readonly plan: SheetPlan | undefined;
}

/** One family of findings. */
export type Check = (state: JobState) => Finding[];
