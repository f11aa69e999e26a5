import { sizeBox, type Box } from '../../measure/box';
import type { CoverFace, OperationOf } from '../operations';
import { entryAt } from '../../entries';
import { facesOf, type FinishedPage } from './finished';
import { flatOf, sizeOfPaper, type Layer } from './paper';

/** A cover round its block: the creased sheet, and where its trim lies. */
export interface Covered {
  open: Layer;
  told: OperationOf<'cover'>;
}

/** A part of a cover between creases, as the cover lies open with its outside up. */
export interface CoverLayer extends Layer {
  part: CoverFace;
}

/**
 * The parts of a cover side by side. With `across`, so far apart as both knives at its ends went, it is cut with the block: outer
 * parts end at the knife; without, they reach as far as its paper.
 */
export function coverLayers({ open, told }: Covered, across?: number): CoverLayer[] {
  const { spine, parts, creases, before, inside } = told;
  const whole = sizeBox(sizeOfPaper({ layers: [open], middle: 0 }));
  const [length, breadth] = spine === 'head' ? [whole.y1, whole.x1] : [whole.x1, whole.y1];
  const isCut = across !== undefined;
  const [head, tail] = isCut ? [inside, inside + across] : [0, breadth];
  return parts.map(({ part, length: long }, n): CoverLayer => {
    const from = n ? entryAt(creases, n - 1) : isCut ? before : 0;
    const to = creases[n] ?? (isCut ? Math.min(length, from + long) : length);
    const box: Box =
      spine === 'head'
        ? { x0: head, x1: tail, y0: from, y1: to }
        : { x0: from, x1: to, y0: whole.y1 - tail, y1: whole.y1 - head };
    return { ...open, flat: flatOf(open, box), part };
  });
}

/** The pages of a cover: outside and inside of each part; outer ones end at the knife. */
export function pagesOfCover(covered: Covered, across?: number): FinishedPage[] {
  const { open, told } = covered;
  const { width, height } = sizeOfPaper({ layers: [open], middle: 0 });
  const breadth = told.spine === 'head' ? width : height;
  return coverLayers(covered, across ?? breadth).flatMap(({ part, flat }) =>
    facesOf({ ...open, flat }, open, told.spine, (face) => ({ cover: part, face })),
  );
}
