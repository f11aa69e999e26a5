import { artBox, bleedSides, facesOf, opposite, sideAt, spineAt } from '../pages/page';
import type { Edges, Page, Side } from '../model/page';
import { foldedAtFore } from './panels';
import type { Check, CheckKind, FindingOf, MendOf } from './finding';
import type { StepDraft } from '../docket/steps';
import { TOLERANCES } from '../measure/tolerances';

/** What this family finds. */
type Found = { code: 'bleed-missing' } | { code: 'bleed-short'; wanted: number; there: number };
type Mends = 'mirror-bleed' | 'enlarge-bleed';
type Finding = FindingOf<Found, Mends>;
type Mend = MendOf<Mends>;

/** Pages with art but no bleed at all, and pages whose bleed the art does not reach. */
const checkBleed: Check<Found, Mends> = ({ list }) => {
  const none: string[] = [];
  const short: { page: Page; wanted: number; there: number }[] = [];
  const folded = foldedAtFore(list);
  facesOf(list).forEach((page, index) => {
    if (!page.art) return;
    const edges = cutEdges(page, sideAt(index, list), list.book.facing, folded.has(page.id)).filter(
      ({ wanted }) => wanted > TOLERANCES.reach,
    );
    if (!edges.length) none.push(page.id);
    const [worst] = edges.sort((a, b) => b.wanted - b.there - (a.wanted - a.there));
    if (worst && worst.there < worst.wanted - TOLERANCES.reach) short.push({ page, ...worst });
  });
  const findings: Finding[] = [];
  if (none.length) findings.push({ code: 'bleed-missing', level: 'note', stage: 'take-in', pages: none });
  if (short.length) {
    const worst = short.reduce((a, b) => (b.wanted - b.there > a.wanted - a.there ? b : a));
    const pages = short.map(({ page }) => page);
    findings.push({
      code: 'bleed-short',
      wanted: worst.wanted,
      there: Math.max(0, worst.there),
      level: 'look',
      stage: 'pages',
      pages: pages.map(({ id }) => id),
      // Art that ends inside the trim has no edge to be mirrored at.
      ...(worst.there >= -TOLERANCES.reach ? mends(pages) : {}),
    });
  }
  return findings;
};

/**
 * At each edge that is cut, the bleed asked for and how far the art, mirrored where that is asked for, reaches. The spine
 * edge of a bound leaf is not cut, nor is a fore edge that is `folded`.
 */
function cutEdges(
  page: Page,
  side: Side,
  bound: boolean,
  folded: boolean,
): { wanted: number; there: number }[] {
  const wanted = bleedSides(page.bleed, side);
  const art = artBox(page)!;
  const edges = [
    { at: 'left', wanted: wanted.left, there: -art.x0 },
    { at: 'right', wanted: wanted.right, there: art.x1 - page.trim.width },
    { at: 'head', wanted: wanted.head, there: art.y1 - page.trim.height },
    { at: 'foot', wanted: wanted.foot, there: -art.y0 },
  ].filter(({ at }) => !(bound && at === spineAt(side)) && !(folded && at === spineAt(opposite(side))));
  return page.mirrored
    ? edges.map(({ wanted, there }) => ({
        wanted,
        there: there >= -TOLERANCES.reach ? Math.max(there, wanted) : there,
      }))
    : edges;
}

/** Mirroring the art or enlarging it, keeping every page's bleed as it is; pages of one bleed share a step. */
function mends(pages: readonly Page[]): { mend?: Mend; otherMend?: Mend } {
  const groups = new Map<string, { edges: Edges; ids: string[] }>();
  for (const { id, bleed } of pages) {
    if (bleed.by !== 'edge') return {};
    const { by: _, ...edges } = bleed;
    const key = JSON.stringify(bleed);
    const known = groups.get(key);
    if (known) known.ids.push(id);
    else groups.set(key, { edges, ids: [id] });
  }
  const steps = (art: 'mirror' | 'enlarge') =>
    [...groups.values()].map(({ edges, ids }): StepDraft => ({
      kind: 'bleed',
      pages: { ids },
      ...edges,
      art,
    }));
  return {
    mend: { code: 'mirror-bleed', steps: steps('mirror') },
    otherMend: { code: 'enlarge-bleed', steps: steps('enlarge') },
  };
}

/** The family of these findings. */
export const bleed: CheckKind<'bleed', Found, Mends> = { kind: 'bleed', check: checkBleed };
