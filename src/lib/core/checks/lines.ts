import type { Size } from '../measure/box';
import { hasArea, intersect, type Box } from '../measure/box';
import { faceFor, missingGlyphs } from '../numbers/faceMetrics';
import type { Face } from '../model/faces';
import { placeLines, type PlacedText } from '../numbers/placeLines';
import { objectsOf } from '../pages/drawn';
import { facesOf, sideAt, spineAt } from '../pages/page';
import type { Page, Side } from '../model/page';
import type { Step } from '../docket/steps';
import type { Check, CheckKind, FindingOf, JobState, MendOf } from './finding';
import { foundIn } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

/** What this family finds. */
type Found =
  | { code: 'lines-near-trim' | 'lines-in-spine'; safe: number; nearest: number }
  | { code: 'lines-on-art' | 'lines-meet' }
  | { code: 'glyph-missing'; chars: readonly string[]; face: Face }
  | { code: 'folio-fixed-side'; side: 'left' | 'right' }
  | { code: 'overlay-larger'; overlay: Size; page: Size };
type Mends = 'other-face' | 'outer-edge';
type Finding = FindingOf<Found, Mends>;
type Mend = MendOf<Mends>;

type LineCode = 'lines-near-trim' | 'lines-in-spine' | 'lines-on-art' | 'lines-meet' | 'glyph-missing';
/** What is wrong with the lines of one step, gathered over pages. */
interface Gathered {
  code: LineCode;
  step: string;
  pages: string[];
  nearest: number;
  chars: Set<string>;
}

/** Whether what is put on pages fits there: within the safe area, off the spine, off the art and off each other, in letters that the face has. */
const checkLines: Check<Found, Mends> = (state) => {
  const { list, docket, surveys } = state;
  const found = new Map<string, Gathered>();
  const note = (
    code: LineCode,
    step: string,
    page: Page,
    nearest = Infinity,
    chars: readonly string[] = [],
  ) => {
    const key = `${code} ${step}`;
    const known = found.get(key) ?? { code, step, pages: [], nearest: Infinity, chars: new Set() };
    found.set(key, known);
    if (known.pages.at(-1) !== page.id) known.pages.push(page.id);
    known.nearest = Math.min(known.nearest, nearest);
    chars.forEach((char) => known.chars.add(char));
  };
  facesOf(list).forEach((page, index) => {
    const side = sideAt(index, list);
    const mine = shownOn(page, side);
    if (!mine.length) return;
    const objects = objectsOf(page, surveys);
    for (const [n, { step, text }] of mine.entries()) {
      const missing = missingGlyphs(text.item.text, text.item);
      if (missing.length) note('glyph-missing', step, page, Infinity, missing);
      const { spine, others } = roomRound(page, side, text.box);
      if (list.book.facing && spine < docket.safe - TOLERANCES.text)
        note('lines-in-spine', step, page, spine);
      const nearest = list.book.facing ? others : Math.min(others, spine);
      if (nearest < docket.safe - TOLERANCES.text) note('lines-near-trim', step, page, nearest);
      if (objects.some((object) => overlaps(object, text.box))) note('lines-on-art', step, page);
      if (mine.slice(0, n).some((other) => overlaps(other.text.box, text.box)))
        note('lines-meet', step, page);
    }
  });
  return [...found.values()].map(({ code, step, pages, nearest, chars }): Finding => {
    const where = { stage: 'numbers', pages, step } as const;
    if (code === 'glyph-missing')
      return glyphFinding(
        [...chars],
        foundIn(docket.steps, ({ id }) => id === step),
        where,
      );
    if (code === 'lines-near-trim' || code === 'lines-in-spine')
      return { code, safe: docket.safe, nearest, level: nearest < 0 ? 'stop' : 'look', ...where };
    return { code, level: 'look', ...where };
  });
};

const shownOn = (page: Page, side: Side): { step: string; text: PlacedText }[] =>
  (page.matter ?? []).flatMap((matter) =>
    matter.hidden ? [] : placeLines(matter, page, side).texts.map((text) => ({ step: matter.step, text })),
  );

/** How far a box stays from the spine and from the nearest of the other sides. */
function roomRound({ trim }: Page, side: Side, b: Box): { spine: number; others: number } {
  const room = { left: b.x0, right: trim.width - b.x1, foot: b.y0, head: trim.height - b.y1 };
  const spine = spineAt(side);
  const others = Object.entries(room).flatMap(([at, length]) => (at === spine ? [] : [length]));
  return { spine: room[spine], others: Math.min(...others) };
}

function overlaps(a: Box, b: Box): boolean {
  const both = intersect(a, b);
  return hasArea(both) && both.x1 - both.x0 > TOLERANCES.touch && both.y1 - both.y0 > TOLERANCES.touch;
}

function glyphFinding(
  chars: readonly string[],
  step: Step,
  where: Pick<Finding, 'stage' | 'pages' | 'step'>,
): Finding {
  const { face, weight } = step as Extract<Step, { kind: 'folio' }>;
  const other = faceFor(chars.join(''), weight);
  return {
    code: 'glyph-missing',
    chars,
    face,
    ...(other ? { mend: inFace(step, other) } : {}),
    level: 'stop',
    ...where,
  };
}

const inFace = (step: Step, face: Face): Mend => ({
  code: 'other-face',
  change: [Object.assign({}, step, { face })],
  data: { face },
});

/** A folio at the same side on both faces of a leaf: half of them lie at the spine. */
const checkFixedSide: Check<Found, Mends> = ({ list, docket }) => {
  if (!list.book.facing) return [];
  return docket.steps.flatMap((step): Finding[] => {
    if (step.off || step.kind !== 'folio' || (step.across !== 'left' && step.across !== 'right')) return [];
    const on = facesOf(list).flatMap((page, index) =>
      page.lines?.some((each) => each.step === step.id) ? [{ id: page.id, side: sideAt(index, list) }] : [],
    );
    const sides = new Set(on.map(({ side }) => side));
    if (sides.size < 2) return [];
    return [
      {
        code: 'folio-fixed-side',
        side: step.across,
        level: 'look',
        stage: 'numbers',
        pages: on.map(({ id }) => id),
        step: step.id,
        mend: { code: 'outer-edge', change: [{ ...step, across: 'outer' as const }] },
      },
    ];
  });
};

/** An overlay that is larger than what it is laid over loses its edges. */
const checkOverlays: Check<Found, Mends> = ({ list, docket }: JobState) =>
  docket.steps.flatMap((step): Finding[] => {
    if (step.off || step.kind !== 'overlay') return [];
    const small = facesOf(list).filter(({ trim, laid }) =>
      laid?.some(
        (one) =>
          one.step === step.id &&
          (one.size.width * one.scale[0] > trim.width + TOLERANCES.text ||
            one.size.height * one.scale[1] > trim.height + TOLERANCES.text),
      ),
    );
    const [first] = small;
    const laid = first?.laid?.find((one) => one.step === step.id);
    if (!first || !laid) return [];
    return [
      {
        code: 'overlay-larger',
        overlay: { width: laid.size.width * laid.scale[0], height: laid.size.height * laid.scale[1] },
        page: first.trim,
        level: 'stop',
        stage: 'numbers',
        pages: small.map(({ id }) => id),
        step: step.id,
      },
    ];
  });

/** The family of these findings. */
export const lines: CheckKind<'lines', Found, Mends> = {
  kind: 'lines',
  check: (state) => [...checkLines(state), ...checkFixedSide(state), ...checkOverlays(state)],
};
