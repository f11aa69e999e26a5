import { artBox, bleedSides, sideOf, type Page, type Side } from '../pages/page';
import type { Check, Finding } from './finding';

/** Less than this, in points, counts as no difference in bleed. */
const SLACK = 0.1;

/** Pages with art but no bleed at all, and pages whose bleed the art does not reach. */
export const checkBleed: Check = ({ list }) => {
  const none: string[] = [];
  const short: { id: string; wanted: number; there: number }[] = [];
  list.pages.forEach((page, index) => {
    if (!page.art) return;
    const { wanted, there } = worstEdge(page, sideOf(index, list.book));
    if (wanted <= SLACK) none.push(page.id);
    else if (there < wanted - SLACK) short.push({ id: page.id, wanted, there });
  });
  const findings: Finding[] = [];
  if (none.length) findings.push({ code: 'bleed-missing', level: 'note', stage: 'take-in', pages: none });
  if (short.length) {
    const worst = short.reduce((a, b) => (b.wanted - b.there > a.wanted - a.there ? b : a));
    findings.push({
      code: 'bleed-short',
      wanted: worst.wanted,
      there: Math.max(0, worst.there),
      level: 'look',
      stage: 'pages',
      pages: short.map(({ id }) => id),
    });
  }
  return findings;
};

/** The edge where the art falls shortest of the bleed asked for. */
function worstEdge(page: Page, side: Side): { wanted: number; there: number } {
  const wanted = bleedSides(page.bleed, side);
  const art = artBox(page)!;
  const there = {
    left: -art.x0,
    right: art.x1 - page.trim.width,
    head: art.y1 - page.trim.height,
    foot: -art.y0,
  };
  // The spine edge of a bound leaf is not cut, so bleed missing there does no harm.
  const edges = (side === 'right' ? ['right', 'head', 'foot'] : ['left', 'head', 'foot']) as (
    'left' | 'right' | 'head' | 'foot'
  )[];
  return edges
    .map((edge) => ({ wanted: wanted[edge], there: there[edge] }))
    .reduce((worst, edge) =>
      edge.wanted - edge.there > worst.wanted - worst.there || (worst.wanted <= SLACK && edge.wanted > SLACK)
        ? edge
        : worst,
    );
}
