import type { Page } from '../pages/page';
import { sameSize } from '../paper/sizes';
import { leafOf, sizeGroups } from '../pages/leaves';
import type { Check, Finding, StepDraft } from './finding';

/** Pages of another size than the rest of their piece, unnoticed until the folder jams; and leaves whose two faces differ. */
export const checkSizes: Check = ({ list }) => {
  const findings = pieces(list.pages).flatMap(mixedSizes);
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
      mend: { code: 'same-leaf-size', steps: [sizeLike([back], page)] },
    });
  });
  return findings;
};

/** The pages of each piece, those of none together. */
function pieces(pages: readonly Page[]): Page[][] {
  const found = new Map<string | undefined, Page[]>();
  for (const page of pages) {
    const known = found.get(page.piece?.name);
    if (known) known.push(page);
    else found.set(page.piece?.name, [page]);
  }
  return [...found.values()];
}

function mixedSizes(pages: readonly Page[]): Finding[] {
  const [most, ...odd] = sizeGroups(pages);
  if (!most || !odd.length) return [];
  const others = odd.flatMap((group) => group.indexes.map((index) => pages[index]!));
  return [
    {
      code: 'mixed-sizes',
      commonest: most.size,
      sizes: odd.length + 1,
      level: 'stop',
      stage: 'pages',
      pages: others.map(({ id }) => id),
      mend: { code: 'commonest-size', steps: [sizeLike(others, { trim: most.size })] },
    },
  ];
}

/** The step that sizes pages like another one, their content fitted. */
const sizeLike = (pages: readonly Page[], { trim }: Pick<Page, 'trim'>): StepDraft => ({
  kind: 'trim',
  pages: { ids: pages.map(({ id }) => id) },
  width: trim.width,
  height: trim.height,
  content: 'fit',
  fixed: { x: 'centre', y: 'centre' },
});
