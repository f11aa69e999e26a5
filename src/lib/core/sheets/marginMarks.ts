import { bounds, mirrored, type Box, type Size } from '../measure/box';
import { applyToBox, translate } from '../measure/matrix';
import { BLACK } from '../ink/colour';
import type { Item } from '../model/surface';
import { backMatrix, onSheet, type PlacedForme } from './forme';
import { beyond, isClear, lengthOf, type MarkRoom } from './markLines';
import { askedFor, type MarkName } from './marks';
import type { SheetWords } from './marks/markKind';
import type { SheetLine } from './plan';

interface Margin {
  placed: readonly PlacedForme[];
  side: 'front' | 'back';
  sheet: Size;
  axis: 'vertical' | 'horizontal';
  /** Boxes on the front that nothing may touch: the bleeds. */
  clear: readonly Box[];
  /** The lines of the side, which no other mark may lie on. */
  lines: readonly SheetLine[];
  room: MarkRoom;
  say: SheetWords;
}

/** Marks that are more than lines: registration marks, colour bar, slug line and collating bars; as their side is seen. */
export function marginMarks({ placed, side, sheet, axis, clear, lines, room, say }: Margin): {
  marks?: readonly Item[];
  dropped?: readonly MarkName[];
} {
  const { settings } = room;
  const barred = placed.some(({ forme }) => forme.bars);
  const drawn = askedFor(settings).filter(({ draw }) => draw);
  if (!barred && !drawn.length) return {};
  const whole = side === 'front' ? translate(0, 0) : backMatrix(sheet, axis);
  /** A box on the front as it is seen on this side. */
  const seen = (box: Box): Box => (side === 'front' ? box : applyToBox(whole, mirrored(box, sheet.width)));
  const bleeds = clear.map(seen);
  const printed = seen(room.printed);
  const around = bounds(bleeds);
  // Lines that are printed; those of this side are given as it is seen.
  const taken = [...bleeds, ...lines.filter(({ kind }) => kind.endsWith('mark'))];
  const dropped: MarkName[] = [];
  const items: Item[] = [];
  const reach = beyond(room) - Math.max(room.bleed.left, room.bleed.right, room.bleed.head, room.bleed.foot);
  const far = reach + lengthOf(settings);
  for (const { forme, ...place } of placed)
    for (const { face, box } of forme.bars ?? [])
      if (face === side)
        items.push({
          kind: 'rect',
          box: seen(applyToBox(onSheet({ forme, ...place }), box)),
          ink: BLACK,
          layer: 'marks',
        });
  const take = (box: Box): boolean => {
    if (!isClear(box, taken, printed)) return false;
    taken.push(box);
    return true;
  };
  for (const { kind, draw } of drawn) {
    const mark = draw!({ side, settings, around, reach, far, say, take }, settings[kind]);
    if (mark) items.push(...mark);
    else dropped.push(kind);
  }
  return { ...(items.length ? { marks: items } : {}), ...(dropped.length ? { dropped } : {}) };
}
