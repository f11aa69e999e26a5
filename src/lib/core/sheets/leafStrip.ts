import type { Axis, BorderFold } from '../fold/fold';
import type { Pattern } from '../fold/patterns';
import type { Size } from '../measure/box';
import { labelsOf } from '../numbers/labels';
import { leafOf } from '../pages/leaves';
import { backSide, frontSide, sideAt } from '../pages/page';
import type { Page, PageList, Side, Spine } from '../model/page';
import { addressesOf, panelsBy, panelsOf, type Panel } from '../pages/panels';
import { backTurn, type Forme } from './forme';
import { gridForme, type Between } from './grid';
import type { PlannedPage } from './plan';
import { entryAt, entryOf } from '../entries';

/** A leaf, or a fold-out panel on it, from its spine outwards: what its two faces show and its length there. */
export interface StripPart {
  front?: PlannedPage;
  back?: PlannedPage;
  length: number;
}

/** The length of a page across the spine. */
export const lengthAlong = (size: Size, spine: Spine): number =>
  spine === 'head' ? size.height : size.width;

/** Every page as it is planned if none is added, in order. */
export function plannedPages(list: PageList): PlannedPage[] {
  const labels = labelsOf(list);
  return list.pages.map((page, index) => ({
    page,
    position: index + 1,
    name: String(index + 1),
    label: entryAt(labels, index),
    side: sideAt(index, list),
  }));
}

/** The faces of all fold-outs as they are planned, by their ids; they come after so many pages. */
export function plannedPanels(list: PageList, after: number): ReadonlyMap<string, PlannedPage> {
  const addresses = addressesOf(list);
  let position = after;
  const planned = (page: Page, side: Side): [string, PlannedPage] => [
    page.id,
    { page, position: ++position, name: entryOf(addresses, page.id), label: page.label ?? '', side },
  ];
  return new Map(
    panelsOf(list).flatMap(({ front, back }) => [
      planned(front, frontSide(list.book)),
      planned(back, backSide(list.book)),
    ]),
  );
}

/** Fold-outs as parts of a strip. */
export function panelParts(
  panels: readonly Panel[],
  planned: ReadonlyMap<string, PlannedPage>,
  spine: Spine,
): Required<StripPart>[] {
  return panels.map(({ front, back }) => ({
    front: entryOf(planned, front.id),
    back: entryOf(planned, back.id),
    length: Math.max(lengthAlong(front.trim, spine), lengthAlong(back.trim, spine)),
  }));
}

const JOINT: Between = { gap: 0, cut: false, folded: true };

/**
 * The folds of a leaf's parts (from its spine outwards), the outermost first: each panel goes over or under what it hangs on, as
 * it says itself. Parts lie from the left or from the foot, `reversed` the other way round; `before` more lie before them.
 */
export function panelFolds(
  parts: readonly StripPart[],
  {
    axis,
    reversed,
    before = 0,
    faceUp = 'front',
  }: { axis: Axis; reversed: boolean; before?: number; faceUp?: 'front' | 'back' },
): BorderFold[] {
  return parts
    .map(({ front, back }, n): BorderFold => {
      const { folds } = (front?.page ?? back?.page)?.panel ?? {};
      return {
        axis,
        border: before + (reversed ? parts.length - n : n),
        moves: reversed ? 'before' : 'after',
        goes: folds === faceUp ? 'over' : 'under',
      };
    })
    .slice(1)
    .reverse();
}

/** A leaf with what folds out of it (from its spine outwards) as a piece by itself, cut to its trims and then folded. */
export function foldOutForm(fromSpine: readonly StripPart[], spine: Spine, name: string): Forme {
  const forme = stripForme(asItLies(fromSpine, spine), spine, name);
  const head = spine === 'head';
  const lengths = asItLies(fromSpine, spine).map(({ length }) => length);
  const pattern: Pattern = {
    columns: head ? [forme.size.width] : lengths,
    rows: head ? lengths : [forme.size.height],
    folds: panelFolds(fromSpine, { axis: head ? 'horizontal' : 'vertical', reversed: spine !== 'left' }),
  };
  const leaf = entryAt(forme.slots, spine === 'left' ? 0 : forme.slots.length - 1).box;
  return { ...forme, foldings: [{ pattern, cutFirst: true, of: name, leaf }] };
}

/** A leaf with its fold-outs, flat, its front up: parts from the left, or from the foot where it is bound at the head. */
export function stripForme(parts: readonly StripPart[], spine: Spine, name?: string): Forme {
  const head = spine === 'head';
  const lengths = parts.map(({ length }) => length);
  const across = Math.max(
    ...parts.flatMap(({ front, back }) =>
      [front, back].flatMap((face) =>
        face?.page ? [head ? face.page.trim.width : face.page.trim.height] : [],
      ),
    ),
  );
  const joints = lengths.slice(1).map(() => JOINT);
  return gridForme({
    columns: head ? [across] : lengths,
    rows: head ? lengths : [across],
    betweenColumns: head ? [] : joints,
    betweenRows: head ? joints : [],
    at: (column, row) => {
      const { front, back } = entryAt(parts, head ? row : column);
      return {
        ...(front ? { front: { planned: front, turn: 0 } } : {}),
        ...(back ? { back: { planned: back, turn: backTurn(back.side) } } : {}),
      };
    },
    ...(name ? { name } : {}),
  });
}

/** Parts from the spine outwards, as they lie from the left, or from the foot, with the front of their leaf up. */
export const asItLies = <T>(fromSpine: readonly T[], spine: Spine): T[] =>
  spine === 'left' ? [...fromSpine] : [...fromSpine].reverse();

/** What a reader sees of one leaf, with all that folds out of it, from the spine outwards. */
export interface OpenFace {
  /** Index of its page; nothing if a fold-out hangs on a leaf that has no page on this face. */
  index?: number;
  face: 'front' | 'back';
  /** As fronts, whichever face of the leaf they are: they are seen from above. */
  shown: StripPart[];
}

/** The pages in reading order with the fold-outs that lie beside them, every face of every leaf once. */
export function openFaces(list: PageList): OpenFace[] {
  const { book } = list;
  const pages = plannedPages(list);
  const planned = plannedPanels(list, pages.length);
  const byLeaf = panelsBy(list, ({ leaf }) => leaf);
  const hanging = (leaf: number, face: 'front' | 'back') =>
    panelParts(byLeaf.get(leaf) ?? [], planned, book.spine).map((part) => ({
      front: part[face],
      length: part.length,
    }));
  return pages.flatMap((page, index): OpenFace[] => {
    const { leaf, face } = leafOf(index, book);
    const own: OpenFace = {
      index,
      face,
      shown: [{ front: page, length: lengthAlong(page.page!.trim, book.spine) }, ...hanging(leaf, face)],
    };
    const other = face === 'front' ? 'back' : 'front';
    const there = index + (face === 'front' ? 1 : -1);
    const isAlone = !pages[there] || leafOf(there, book).leaf !== leaf;
    if (!isAlone || !byLeaf.has(leaf)) return [own];
    const behind: OpenFace = { face: other, shown: hanging(leaf, other) };
    return face === 'front' ? [own, behind] : [behind, own];
  });
}
