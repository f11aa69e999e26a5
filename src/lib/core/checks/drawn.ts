import type { CoverPart } from '../model/page';
import { effectivePpi, inkOf, textOf } from '../pages/drawn';
import type { Box } from '../measure/box';
import { coverPages } from '../pages/coverParts';
import { artsOf, facesOf } from '../pages/page';
import type { Page } from '../model/page';
import type { Surveys } from '../model/survey';
import type { Check, CheckKind, FindingOf, JobState } from './finding';
import { TOLERANCES } from '../measure/tolerances';

/** What this family finds. */
type Found =
  | { code: 'over-safe-area'; safe: number; nearest: number; part?: CoverPart }
  | { code: 'low-resolution'; ppi: number; part?: CoverPart };
type Finding = FindingOf<Found, never>;

/** Fewer pixels an inch than this show in print. By practice. */
const LEAST_PPI = 200;

/** What only a measured source tells of the pages, and of the cover's: content too near to the trim, and images too coarse for their size. */
const checkDrawn: Check<Found, never> = (state) => [
  ...judge(facesOf(state.list), state),
  ...coverPages(state.list).flatMap(({ part, page }) =>
    judge([page], state).map((finding): Finding => ({ ...finding, part, stage: 'sheets', pages: [] })),
  ),
];

function judge(pages: readonly Page[], { docket, surveys }: JobState): Finding[] {
  const near: { id: string; nearest: number }[] = [];
  const coarse: { id: string; ppi: number }[] = [];
  for (const page of pages) {
    const nearest = nearestToTrim(page, surveys);
    if (nearest < docket.safe - TOLERANCES.measured) near.push({ id: page.id, nearest });
    const ppi = effectivePpi(page, surveys);
    if (ppi !== undefined && ppi < LEAST_PPI - 0.5) coarse.push({ id: page.id, ppi });
  }
  const findings: Finding[] = [];
  if (near.length)
    findings.push({
      code: 'over-safe-area',
      safe: docket.safe,
      nearest: Math.min(...near.map(({ nearest }) => nearest)),
      level: 'look',
      stage: 'pages',
      pages: near.map(({ id }) => id),
    });
  if (coarse.length)
    findings.push({
      code: 'low-resolution',
      ppi: Math.min(...coarse.map(({ ppi }) => ppi)),
      level: 'look',
      stage: 'pages',
      pages: coarse.map(({ id }) => id),
    });
  return findings;
}

/**
 * How near text, or art that does not run to the trim, comes to it, in points; less than 0 where text runs over it.
 * Pages cropped on purpose, and parts of pages that were cut up, are not judged: what was cut off them cannot be told from
 * what was forgotten.
 */
function nearestToTrim(page: Page, surveys: Surveys): number {
  if (page.whole || artsOf(page).some(({ cut }) => cut)) return Infinity;
  const [text, ink] = [textOf(page, surveys), inkOf(page, surveys)];
  const stray = ink ? distances(page, ink).filter((distance) => distance > TOLERANCES.measured) : [];
  return Math.min(...(text ? distances(page, text) : []), ...stray);
}

/** How far a box in page space stays inside each side of the trim. */
const distances = ({ trim }: Page, b: Box): number[] => [b.x0, trim.width - b.x1, b.y0, trim.height - b.y1];

/** The family of these findings. */
export const drawn: CheckKind<'drawn', Found, never> = { kind: 'drawn', check: checkDrawn };
