import { heightOf, widthOf, type Box } from '../../measure/box';
import { translate } from '../../measure/matrix';
import { mm } from '../../measure/unit';
import { inOrder, type Work } from '../line/line';
import { extentOf, placedBy } from '../line/paper';
import type { OperationOf } from '../operations';
import { stacked, topOf, type Placed } from './placed';

/** A pile of pieces on the mat: where it lies, what it is called, and how many lie on it. */
export interface Pile {
  box: Box;
  pile: number;
  name?: string;
  pieces: number;
  height: number;
}

/** Between piles on the mat. */
const GAP = mm(12);

/**
 * The piles that pieces are stacked on, side by side: alike ones of the sheet that is followed, as many as its `copies` give; or
 * the pieces of all sheets in order, once.
 */
export function pilesOf(
  { sheets, by, piles }: OperationOf<'stack'>,
  worksOf: (sheet: number) => readonly Work[],
  followed: number,
  caliperOf: (sheet: number) => number,
  copies: number,
): { parts: Placed[]; piles: Pile[] } {
  const heaps = piles.map(({ pile, name, strips = [], pieces }) => {
    const ordered = inOrder({ sheets, by }, strips, worksOf);
    const alike = worksOf(followed).filter((work) => work.pile === pile);
    const works = by === 'alike' ? alike.slice(0, 1) : ordered.slice(0, pieces);
    const many = by === 'alike' ? alike.length * copies : works.length;
    return { pile, name, works, many, times: by === 'alike' ? many : 1 };
  });
  const shown = heaps.filter(({ works }) => works.length);
  const columns = Math.ceil(Math.sqrt(shown.length));
  const parts: Placed[] = [];
  const told: Pile[] = [];
  let [x, y, deep] = [0, 0, 0];
  shown.forEach(({ pile, name, works, many, times }, n) => {
    const layers = works.flatMap(({ paper }) => paper.layers);
    const box = extentOf({ layers });
    if (n % columns === 0 && n) [x, y, deep] = [0, y - deep - GAP, 0];
    const placed = placedBy({ layers, middle: 0 }, translate(x - box.x0, y - box.y1));
    const lies = stacked(placed.layers, (sheet) => caliperOf(sheet) * times);
    parts.push(...lies);
    told.push({
      box: extentOf({ layers: placed.layers }),
      pile,
      ...(name ? { name } : {}),
      pieces: many,
      height: topOf(lies),
    });
    x += widthOf(box) + GAP;
    deep = Math.max(deep, heightOf(box));
  });
  return { parts, piles: told };
}
