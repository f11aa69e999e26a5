import type { Size } from '../measure/box';
import { entryAt } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

/** A kind of piece and how many of it are wanted. */
export interface Wanted {
  size: Size;
  quantity: number;
}

/** One piece on a ganged sheet, from the lower left corner of the block; `turned` by a quarter. */
export interface Ganged {
  piece: number;
  x: number;
  y: number;
  turned: boolean;
}

export interface Gang {
  placed: readonly Ganged[];
  block: Size;
  /** How often each piece lies on a sheet. */
  each: readonly number[];
  /** Sheets that give at least the quantity of every piece. */
  sheets: number;
}

/** Pieces in rows from the foot, the highest first, each row as high as its first piece: rows and then pieces are parted by through-cuts. */
function pack(
  pieces: readonly { piece: number; size: Size }[],
  room: Size,
  gap: number,
): { placed: Ganged[]; block: Size } | undefined {
  const laid = pieces
    .map(({ piece, size }) => {
      // Lying, unless only its standing forme fits across.
      const flat = { width: Math.max(size.width, size.height), height: Math.min(size.width, size.height) };
      const lies =
        flat.width <= room.width + TOLERANCES.sum ? flat : { width: flat.height, height: flat.width };
      return { piece, size: lies, turned: Math.abs(lies.width - size.width) > TOLERANCES.sum };
    })
    .sort((a, b) => b.size.height - a.size.height || b.size.width - a.size.width || a.piece - b.piece);
  const rows: { y: number; height: number; x: number }[] = [];
  const placed: Ganged[] = [];
  for (const { piece, size, turned } of laid) {
    let row = rows.find(
      ({ x, height }) =>
        x + size.width <= room.width + TOLERANCES.sum && size.height <= height + TOLERANCES.sum,
    );
    if (!row) {
      const last = rows.at(-1);
      row = { y: last ? last.y + last.height + gap : 0, height: size.height, x: 0 };
      if (row.y + row.height > room.height + TOLERANCES.sum || size.width > room.width + TOLERANCES.sum)
        return undefined;
      rows.push(row);
    }
    placed.push({ piece, x: row.x, y: row.y, turned });
    row.x += size.width + gap;
  }
  const last = rows.at(-1);
  return {
    placed,
    block: {
      width: Math.max(0, ...rows.map(({ x }) => x - gap)),
      height: last ? last.y + last.height : 0,
    },
  };
}

/** More pieces than this are not tried on one sheet. */
const MOST = 5000;

/**
 * Gangs pieces on one sheet by the quantities wanted: the fewest sheets for which each piece lies on it often enough. Undefined
 * where one of each does not fit.
 */
export function gang(wanted: readonly Wanted[], room: Size, gap: number): Gang | undefined {
  const tried = (sheets: number): Gang | undefined => {
    const each = wanted.map(({ quantity }) => Math.ceil(quantity / sheets));
    if (each.reduce((sum, count) => sum + count, 0) > MOST) return undefined;
    const pieces = wanted.flatMap(({ size }, piece) =>
      Array.from({ length: entryAt(each, piece) }, () => ({ piece, size })),
    );
    const packed = pack(pieces, room, gap);
    return packed && { ...packed, each, sheets };
  };
  let most = Math.max(1, ...wanted.map(({ quantity }) => quantity));
  let found = wanted.length ? tried(most) : undefined;
  // Fewer sheets carry more of each piece.
  for (let least = 1; found && least < most;) {
    const middle = Math.floor((least + most) / 2);
    const better = tried(middle);
    if (better) [found, most] = [better, middle];
    else least = middle + 1;
  }
  return found;
}
