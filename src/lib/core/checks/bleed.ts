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
    const edges = cutEdges(page, sideOf(index, list.book)).filter(({ wanted }) => wanted > SLACK);
    if (!edges.length) none.push(page.id);
    const [worst] = edges.sort((a, b) => b.wanted - b.there - (a.wanted - a.there));
    if (worst && worst.there < worst.wanted - SLACK) short.push({ id: page.id, ...worst });
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

/** At each edge that is cut, the bleed asked for and how far the art reaches. The spine edge of a bound leaf is not cut. */
function cutEdges(page: Page, side: Side): { wanted: number; there: number }[] {
  const wanted = bleedSides(page.bleed, side);
  const art = artBox(page)!;
  const fore =
    side === 'right'
      ? { wanted: wanted.right, there: art.x1 - page.trim.width }
      : { wanted: wanted.left, there: -art.x0 };
  return [
    fore,
    { wanted: wanted.head, there: art.y1 - page.trim.height },
    { wanted: wanted.foot, there: -art.y0 },
  ];
}
