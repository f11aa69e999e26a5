import { sameSize } from '../paper/sizes';
import { leafOf, sizeGroups } from '../pages/leaves';
import type { Check, Finding } from './finding';

/** Pages of another size than the rest, unnoticed until the folder jams; and leaves whose two faces differ. */
export const checkSizes: Check = ({ list }) => {
  const [most, ...odd] = sizeGroups(list.pages);
  if (!most || !odd.length) return [];
  const pages = odd.flatMap((group) => group.indexes.map((index) => list.pages[index]!.id));
  const { width, height } = most.size;
  const step = {
    kind: 'trim' as const,
    pages: { ids: pages },
    width,
    height,
    content: 'fit' as const,
    fixed: { x: 'centre' as const, y: 'centre' as const },
  };
  const findings: Finding[] = [
    {
      code: 'mixed-sizes',
      commonest: most.size,
      sizes: odd.length + 1,
      level: 'stop',
      stage: 'pages',
      pages,
      mend: { code: 'commonest-size', steps: [step] },
    },
  ];
  list.pages.forEach((page, index) => {
    const back = list.pages[index + 1];
    if (!back || leafOf(index, list.book).face !== 'front' || sameSize(page.trim, back.trim)) return;
    findings.push({
      code: 'leaf-two-sizes',
      front: page.trim,
      back: back.trim,
      level: 'stop',
      stage: 'pages',
      pages: [page.id, back.id],
    });
  });
  return findings;
};
