import type { Page } from '../pages/page';
import { sameSize } from '../paper/sizes';
import { sizeLike } from '../docket/steps/trim';
import { leafOf } from '../pages/leaves';
import { foldedAtFore } from './panels';
import { oddOnes, piecesOf, sizeGroups } from '../pages/sizes';
import type { Check, Finding } from './finding';

/** Pages of another size than the rest of their piece, unnoticed until the folder jams; and leaves whose two faces differ. */
export const checkSizes: Check = ({ list }) => {
  // A leaf with a fold-out ends at its fold, so it is narrower than the rest.
  const folded = foldedAtFore(list);
  const findings = piecesOf(list.pages.filter(({ id }) => !folded.has(id))).flatMap(mixedSizes);
  list.pages.forEach((page, index) => {
    const back = list.pages[index + 1];
    if (!back || leafOf(index, list.book).face !== 'front' || !list.book.facing) return;
    if (sameSize(page.trim, back.trim)) return;
    findings.push({
      code: 'leaf-two-sizes',
      front: page.trim,
      back: back.trim,
      level: 'stop',
      stage: 'pages',
      pages: [page.id, back.id],
      mend: { code: 'same-leaf-size', steps: [sizeLike([back], page.trim)] },
    });
  });
  return findings;
};

function mixedSizes(pages: readonly Page[]): Finding[] {
  const odd = oddOnes(pages);
  if (!odd) return [];
  return [
    {
      code: 'mixed-sizes',
      commonest: odd.like,
      sizes: sizeGroups(pages).length,
      level: 'stop',
      stage: 'pages',
      pages: odd.pages.map(({ id }) => id),
      mend: { code: 'commonest-size', steps: [sizeLike(odd.pages, odd.like)] },
    },
  ];
}
