import { sizeBox, type Size } from '../src/lib/core/measure/box';
import { IDENTITY } from '../src/lib/core/measure/matrix';
import { mm } from '../src/lib/core/measure/unit';
import type { StepDraft } from '../src/lib/core/docket/steps';
import { emptyDocket, type Docket } from '../src/lib/core/docket/docket';
import type { Step } from '../src/lib/core/docket/steps';
import type { Book, Side } from '../src/lib/core/model/page';
import type { Sheet, SheetPlan, SheetSide } from '../src/lib/core/sheets/plan';
import type { Survey, SurveyPage } from '../src/lib/core/model/survey';

/** Survey, page and docket makers for tests. */
export const A5 = { width: mm(148), height: mm(210) };

export const surveyPage = (size: Size = A5, more: Partial<SurveyPage> = {}): SurveyPage => {
  const box = sizeBox(size);
  return {
    boxes: { media: box, crop: box, bleed: box, trim: box, art: box },
    given: ['media'],
    rotate: 0,
    userUnit: 1,
    toUpright: IDENTITY,
    ...more,
  };
};

export const survey = (pages: SurveyPage[]): Survey => ({
  version: 1,
  pages,
  inks: [],
  bookmarks: [],
  pdfVersion: '1.7',
  encryption: 'none',
  byteCount: 1,
});

export const plainSurvey = (count: number, size?: Size): Survey =>
  survey(Array.from({ length: count }, () => surveyPage(size)));

/** A book read from left to right, its pages facing. */
export const bookOf = (first: Side, more: Partial<Book> = {}): Book => ({
  first,
  spine: 'left',
  facing: true,
  ...more,
});

export const hashOf = (letter: string): string => letter.repeat(64);

export const takeInStep = (letter: string, where: 'start' | 'end' = 'end', name = `${letter}.pdf`): Step => ({
  id: `t${letter}`,
  kind: 'take-in',
  source: hashOf(letter),
  name,
  where: { at: where },
});

export const docketOf = (steps: Step[], more: Partial<Docket> = {}): Docket => ({
  ...emptyDocket('Test'),
  steps,
  ...more,
});

/** Steps of a docket from drafts, their ids by their places: s0, s1 … */
export const stepsOf = (drafts: readonly StepDraft[]): Step[] =>
  drafts.map((draft, n) => ({ ...draft, id: `s${n}` }) as Step);

/** The sheets of a plan that prints both sides. */
export const twoSided = ({ sheets }: SheetPlan) => sheets as readonly (Sheet & { back: SheetSide })[];
