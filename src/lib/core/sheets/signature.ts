import type { BorderFold } from '../fold/fold';
import { signaturePattern, type Pattern, type SignaturePages } from '../fold/patterns';
import { signatureLayout } from '../fold/signatureLayout';
import type { Sides, Size } from '../measure/box';
import type { Turn } from '../measure/matrix';
import { backSide, frontSide, spineAt } from '../pages/page';
import type { Spine } from '../model/page';
import type { Face, Forme } from './forme';
import { gridForme, type Between } from './grid';
import { lengthAlong, panelFolds, type StripPart } from './leafStrip';
import { caliperOf } from '../paper/stock';
import type { SheetPlan } from './plan';
import type { Stitched } from './settings/stitched';
import { entryAt, entryOf, firstOf, foundIn } from '../entries';

/** The leaf of a page of a folded sheet (from 1), from the spine outwards, and how far its pages creep. */
export type LeafOf = (page: number) => {
  segments: readonly Required<StripPart>[];
  creep?: NonNullable<Face['creep']>;
};

export interface Folding {
  pages: SignaturePages;
  spine: Spine;
  cell: Size;
  /** Between two pages at the spine; half of it is each one's. */
  gap: number;
  /** What is cut off each page at head, foot and fore edge where two pages meet there. */
  cutOff: number;
  /** How much of the middle between two pages at the spine no bleed may reach into. */
  kept?: number;
}

/**
 * The page of a nested piece of so many pages that a page of one of its sheets becomes, where so many leaf pairs lie around
 * that sheet. It carries `perSheet` pages, the first half before the middle of the booklet, the other half after it.
 */
export const nestedPage = (page: number, around: number, perSheet: number, pages: number): number =>
  page <= perSheet / 2 ? 2 * around + page : pages - 2 * around - (perSheet - page);

/**
 * How pages creep by the leaves around theirs, where the scheme says so and the thickness is known. A leaf is moved into the
 * spine no further than the safe margin, so that nothing that must be read ends in the fold; `plan` says so for each of so
 * many leaves nested in each other.
 */
export function creeping(
  { creep, stock }: Pick<Stitched, 'creep' | 'stock'>,
  safe: number,
): {
  of: (pair: number) => { creep?: NonNullable<Face['creep']> };
  plan: (leaves: number) => Pick<SheetPlan, 'creep'>;
} {
  const caliper = creep ? (creep.caliper ?? caliperOf(stock) ?? 0) : 0;
  if (!creep || !caliper) return { of: () => ({}), plan: () => ({}) };
  const most = creep.by === 'shift' ? safe : Infinity;
  const done = (pair: number) => Math.min(pair * caliper, most);
  return {
    of: (pair) => ({ creep: { by: creep.by, length: done(pair) } }),
    plan: (leaves) => ({
      creep: Array.from({ length: leaves }, (_, pair) => ({ wanted: pair * caliper, done: done(pair) })),
    }),
  };
}

/** How many leaves lie around the leaf of a page, of so many pages nested in each other: 0 for the outermost. */
export const leafPairOf = (page: number, pages: number): number =>
  Math.floor((Math.min(page, pages + 1 - page) - 1) / 2);

const CLOCKWISE: readonly (keyof Sides)[] = ['head', 'right', 'foot', 'left'];

/** Lays folded sheets flat: the leaves where folding puts them, and what must lie between them. */
export function sheetFolder({ pages, ...rest }: Folding): (leafOf: LeafOf, name?: string) => Forme {
  const { spine, cell } = rest;
  const layout = signatureLayout(pages, spine);
  const pattern = signaturePattern(pages, spine);
  const sheet = { ...rest, columns: pattern.columns.length, rows: pattern.rows.length, folds: pattern.folds };
  const places = layout.flatMap(({ page, column, row, face, turn }): Omit<Place, 'segments' | 'creep'>[] => {
    if (page % 2 === 0) return [];
    const under = foundIn(layout, (each) => each.page === page + 1);
    const front = spineAt(frontSide({ spine }));
    // Seen from the sheet's front: the spine of an odd page that lies there, or that of its back.
    const own =
      face === 'front' ? { side: front, turn } : { side: spineAt(backSide({ spine })), turn: under.turn };
    const at = entryAt(CLOCKWISE, (CLOCKWISE.indexOf(own.side) + own.turn / 90) % 4);
    return [{ page, column, row, at, odd: { face, turn }, even: { face: under.face, turn: under.turn } }];
  });
  places.sort((a, b) => a.row - b.row || a.column - b.column);
  const length = lengthAlong(cell, spine);
  let plain: Forme | undefined;
  return (leafOf, name) => {
    const held = places.map((place): Place => {
      const { segments, creep } = leafOf(place.page);
      return creep ? { segments, creep, ...place } : { segments, ...place };
    });
    if (held.some(({ segments }) => segments.length > 1 || firstOf(segments).length !== length))
      return strips(new Map(held.map((place) => [`${place.column} ${place.row}`, place])), sheet, name);
    plain ??= strips(new Map(held.map((place) => [`${place.column} ${place.row}`, place])), sheet, undefined);
    // Slots stand row by row from the foot, as the places do.
    const { size, folds, slots, foldings } = plain;
    return {
      size,
      folds,
      ...(foldings ? { foldings } : {}),
      like: folds,
      slots: slots.map(({ box, room, folded }, n) => ({
        box,
        room,
        ...(folded ? { folded } : {}),
        ...facesOf(entryAt(held, n), 0),
      })),
      ...(name ? { name } : {}),
    };
  };
}

/** The two faces of a segment of a leaf; panels do not creep. */
function facesOf({ segments, creep, odd, even }: Place, segment: number): { front?: Face; back?: Face } {
  const { front, back } = entryAt(segments, segment);
  const crept = creep && !segment ? { creep } : {};
  return {
    [odd.face]: { planned: front, turn: odd.turn, ...crept },
    [even.face]: { planned: back, turn: even.turn, ...crept },
  };
}

interface Place {
  /** The odd page that lies there. */
  page: number;
  column: number;
  row: number;
  segments: readonly Required<StripPart>[];
  creep?: NonNullable<Face['creep']>;
  odd: { face: 'front' | 'back'; turn: Turn };
  even: { face: 'front' | 'back'; turn: Turn };
  /** The side of its box, as the front is seen, at which its spine lies. */
  at: keyof Sides;
}

type FoldedSheet = Omit<Folding, 'pages'> & Record<'columns' | 'rows', number> & Pick<Pattern, 'folds'>;

/** What of a folded sheet lies along its spine-to-fore-edge direction: leaf after leaf, a leaf with fold-outs in several parts. */
interface Along {
  /** For each part: the leaf's place, and which of its segments it is. */
  parts: { leaf: number; segment: number }[];
  lengths: number[];
  /** What lies between one part and the next. */
  between: Between[];
  foldOuts: BorderFold[];
}

function partsAlong(leaves: readonly Place[], sheet: FoldedSheet, axis: BorderFold['axis']): Along {
  const along: Along = { parts: [], lengths: [], between: [], foldOuts: [] };
  leaves.forEach((place, leaf) => {
    const { segments } = place;
    const atEnd = place.at === 'right' || place.at === 'head';
    along.foldOuts.push(
      ...panelFolds(segments, { axis, reversed: atEnd, before: along.parts.length, faceUp: place.odd.face }),
    );
    const order = segments.map((_, segment) => segment);
    if (atEnd) order.reverse();
    order.forEach((segment, k) => {
      if (k) along.between.push({ gap: 0, cut: false, folded: true });
      along.parts.push({ leaf, segment });
      along.lengths.push(entryAt(segments, segment).length);
    });
    if (leaf + 1 === leaves.length) return;
    // Two leaves meet at their spines or at their fore edges.
    along.between.push(
      atEnd
        ? { gap: sheet.gap, cut: false, folded: true, kept: sheet.kept ?? 0 }
        : { gap: 2 * sheet.cutOff, cut: true, folded: true },
    );
  });
  return along;
}

/** The grid of a folded sheet, in which a leaf with fold-outs takes several columns, or rows where the spine is at the head. */
function strips(places: ReadonlyMap<string, Place>, sheet: FoldedSheet, name: string | undefined): Forme {
  const head = sheet.spine === 'head';
  const [count, countAcross] = head ? [sheet.rows, sheet.columns] : [sheet.columns, sheet.rows];
  const placeAt = (n: number, m: number) => entryOf(places, head ? `${m} ${n}` : `${n} ${m}`);
  const axis = head ? 'horizontal' : 'vertical';
  const leaves = Array.from({ length: count }, (_, n) => placeAt(n, 0));
  const { parts, lengths, between, foldOuts } = partsAlong(leaves, sheet, axis);
  const crossings = Array.from({ length: countAcross - 1 }, (): Between => ({
    gap: 2 * sheet.cutOff,
    cut: true,
    folded: true,
  }));
  const cross = Array<number>(countAcross).fill(head ? sheet.cell.width : sheet.cell.height);
  const at = (n: number, m: number) => {
    const { segment, leaf } = entryAt(parts, n);
    return facesOf(placeAt(leaf, m), segment);
  };
  const named = name ? { name } : {};
  const forme = gridForme(
    head
      ? {
          columns: cross,
          rows: lengths,
          betweenColumns: crossings,
          betweenRows: between,
          at: (column, row) => at(row, column),
          ...named,
        }
      : { columns: lengths, rows: cross, betweenColumns: between, betweenRows: crossings, at, ...named },
  );
  // Borders between leaves, counted in parts.
  const borderAt = (border: number) => parts.findIndex(({ leaf }) => leaf === border);
  const folds = sheet.folds.map((fold) =>
    fold.axis === axis ? { ...fold, border: borderAt(fold.border) } : fold,
  );
  const [whole, wholeAcross] = [withGaps(lengths, between), withGaps(cross, crossings)];
  const pattern: Pattern = {
    columns: head ? wholeAcross : whole,
    rows: head ? whole : wholeAcross,
    folds: [...foldOuts, ...folds],
  };
  // What folds out would be covered by waste that is not cut off before.
  const bound = parts.findIndex(({ segment }) => segment === 0);
  const { box: leaf } = entryAt(forme.slots, head ? bound * countAcross : bound);
  return { ...forme, foldings: [{ pattern, cutFirst: foldOuts.length > 0, leaf }] };
}

/** The lengths from edge to edge, each with half of what lies beside it. */
const withGaps = (bare: readonly number[], gaps: readonly Between[]): number[] =>
  bare.map((length, n) => length + ((gaps[n - 1]?.gap ?? 0) + (gaps[n]?.gap ?? 0)) / 2);
