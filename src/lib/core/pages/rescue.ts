import * as z from 'zod';
import { signaturePattern } from '../fold/patterns';
import { signatureLayout } from '../fold/signatureLayout';
import { turnOf, type Turn } from '../measure/matrix';
import type { Spine } from '../model/page';

/** How scans lie one after another: sheet by sheet, or all fronts and then all backs, these perhaps from the last sheet to the first. */
export const SCAN_ORDERS = ['sheets', 'fronts-backs', 'fronts-backs-reversed'] as const;
export type ScanOrder = (typeof SCAN_ORDERS)[number];

/**
 * What scans show. *Stitched*: both sides of sheets folded once and nested, two pages a scan. *Signature*: both sides of
 * one sheet folded several times. *Spreads*: facing pages as a reader meets them. *Own*: in the order of a list.
 */
export const arrangementSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('stitched'), scans: z.enum(SCAN_ORDERS) }),
  z.object({ by: z.literal('signature'), pages: z.union([z.literal(8), z.literal(16), z.literal(32)]) }),
  z.object({ by: z.literal('spreads') }),
  z.object({
    by: z.literal('own'),
    columns: z.number().int().min(1).max(8),
    rows: z.number().int().min(1).max(8),
    /** The parts of all scans in reading order, counted from 1, scan by scan, each row by row from the left. */
    order: z.array(z.number().int().min(1)).max(5000),
  }),
]);
export type Arrangement = z.infer<typeof arrangementSchema>;

/** One page of the result: part `part` (from 0, row by row from the left) of scan `scan` (from 0), to be turned. */
export interface Found {
  scan: number;
  part: number;
  turn: Turn;
}

/** Why scans cannot be put in order. */
export type RescueProblem =
  | { code: 'scans-odd' | 'signature-count'; data: { scans: number } }
  | { code: 'order-repeats'; data: { part: number } }
  | { code: 'order-gaps' | 'order-outside'; data: { part: number; parts: number } };
export class RescueError extends Error {
  constructor(readonly problem: RescueProblem) {
    super(problem.code);
  }
}

/** Into how many columns and rows each scan is cut. */
export function gridOf(arrangement: Arrangement, spine: Spine): { columns: number; rows: number } {
  if (arrangement.by === 'own') return { columns: arrangement.columns, rows: arrangement.rows };
  if (arrangement.by === 'signature') {
    const { columns, rows } = signaturePattern(arrangement.pages, spine);
    return { columns: columns.length, rows: rows.length };
  }
  return spine === 'head' ? { columns: 1, rows: 2 } : { columns: 2, rows: 1 };
}

/** The pages in reading order, as parts of `scans` scans. Throws RescueError. */
export function rescue(scans: number, arrangement: Arrangement, spine: Spine): Found[] {
  switch (arrangement.by) {
    case 'stitched':
      return stitchedOrder(scans, arrangement.scans, spine);
    case 'signature':
      return signatureOrder(scans, arrangement.pages, spine);
    case 'spreads':
      return Array.from({ length: 2 * scans }, (_, n) => ({
        scan: Math.floor(n / 2),
        part: spine === 'right' ? 1 - (n % 2) : n % 2,
        turn: 0,
      }));
    case 'own':
      return ownOrder(scans * arrangement.columns * arrangement.rows, arrangement);
  }
}

/** The scan on which a side of a sheet lies; sheet 0 is outermost. */
export function scanOf(sheet: number, face: 'front' | 'back', sheets: number, order: ScanOrder): number {
  if (order === 'sheets') return 2 * sheet + (face === 'front' ? 0 : 1);
  if (face === 'front') return sheet;
  return sheets + (order === 'fronts-backs' ? sheet : sheets - 1 - sheet);
}

function stitchedOrder(scans: number, order: ScanOrder, spine: Spine): Found[] {
  if (scans % 2) throw new RescueError({ code: 'scans-odd', data: { scans } });
  const sheets = scans / 2;
  const pages: Found[] = [];
  // Sheet s carries its outer pages N−2s and 2s+1 in front, and 2s+2 and N−2s−1 behind.
  for (let sheet = 0; sheet < sheets; sheet++) {
    const [last, first] = [4 * sheets - 2 * sheet, 2 * sheet + 1];
    const [front, back] = (['front', 'back'] as const).map((face) => scanOf(sheet, face, sheets, order));
    const put = (position: number, scan: number, part: number) =>
      (pages[position - 1] = { scan, part, turn: 0 });
    const later = spine === 'right' ? 0 : 1;
    put(last, front!, 1 - later);
    put(first, front!, later);
    put(first + 1, back!, 1 - later);
    put(last - 1, back!, later);
  }
  return pages;
}

/**
 * Both sides of each signature in turn, gathered one after another. A back is seen as the leaves of the book turn: the
 * sheet turned over about a vertical axis, or head over foot where it is bound at the head.
 */
function signatureOrder(scans: number, size: 8 | 16 | 32, spine: Spine): Found[] {
  if (scans % 2) throw new RescueError({ code: 'signature-count', data: { scans } });
  const { columns: across, rows: up } = signaturePattern(size, spine);
  const [columns, rows] = [across.length, up.length];
  const pages: Found[] = [];
  for (const { page, column, row, face, turn } of signatureLayout(size, spine)) {
    const [behind, upward] = [face === 'back', face === 'back' && spine === 'head'];
    const seen = {
      column: behind && !upward ? columns - 1 - column : column,
      row: upward ? rows - 1 - row : row,
      turn: turnOf(upward ? turn + 180 : turn)!,
    };
    for (let signature = 0; signature < scans / 2; signature++)
      pages[signature * size + page - 1] = {
        scan: 2 * signature + (behind ? 1 : 0),
        part: (rows - 1 - seen.row) * columns + seen.column,
        turn: seen.turn,
      };
  }
  return pages;
}

function ownOrder(parts: number, { order, columns, rows }: Extract<Arrangement, { by: 'own' }>): Found[] {
  const seen = new Set<number>();
  for (const part of order) {
    if (part > parts) throw new RescueError({ code: 'order-outside', data: { part, parts } });
    if (seen.has(part)) throw new RescueError({ code: 'order-repeats', data: { part } });
    seen.add(part);
  }
  const missing = Array.from({ length: parts }, (_, n) => n + 1).find((part) => !seen.has(part));
  if (missing !== undefined) throw new RescueError({ code: 'order-gaps', data: { part: missing, parts } });
  const each = columns * rows;
  return order.map((part) => ({ scan: Math.floor((part - 1) / each), part: (part - 1) % each, turn: 0 }));
}

/** Scans that are turned before they are cut, counted from 1. */
export type TurnedScans = { scans: number[]; by: 90 | 180 | 270 };

/** Turned scans once one of them is turned by so much, or not at all. */
export function withTurn(turned: readonly TurnedScans[], scan: number, by: Turn): TurnedScans[] {
  return ([90, 180, 270] as const).flatMap((each) => {
    const known = turned.filter((one) => one.by === each).flatMap(({ scans }) => scans);
    const scans = [...known.filter((n) => n !== scan), ...(each === by ? [scan] : [])].sort((a, b) => a - b);
    return scans.length ? [{ scans, by: each }] : [];
  });
}

/** Reads a list of parts as typed, `3, 1, 2, 8-5`; undefined if it is none. */
export function parseOrder(text: string): number[] | undefined {
  const order: number[] = [];
  for (const term of text.split(/[\s,;]+/).filter(Boolean)) {
    const [, from, to] = /^(\d{1,5})(?:-(\d{1,5}))?$/.exec(term.replace(/[–—−]/g, '-')) ?? [];
    if (from === undefined || Number(from) < 1) return undefined;
    const [first, last] = [Number(from), Number(to ?? from)];
    const way = last < first ? -1 : 1;
    for (let n = first; n !== last + way; n += way) order.push(n);
  }
  return order.length ? order : undefined;
}
