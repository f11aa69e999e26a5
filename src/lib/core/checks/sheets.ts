import { MARKS, type MarkName } from '../sheets/marks';
import type { Side } from '../model/page';
import { heightOf, widthOf, type Size } from '../measure/box';
import { frontSide } from '../pages/page';
import { fits, stocksFor, type Stock } from '../paper/stock';
import type { SheetPlan } from '../sheets/plan';
import { printedBox } from '../sheets/press';
import type { Press } from '../sheets/scheme';
import { schemeKind, type PressScheme, type Stitched } from '../sheets/schemes';
import { blanksOf, leavesApart, pagesThatFill } from '../sheets/stitched';
import type { Check, CheckKind, FindingOf, MendOf } from './finding';
import { firstOf } from '../entries';

/** What this family finds. */
type Found =
  | { code: 'blanks-wanted'; count: number; total: number; by: number; pad: Stitched['pad'] }
  | { code: 'first-page-side'; side: Side }
  | { code: 'gang-apart'; wanted: readonly number[]; sheets: readonly number[] }
  | { code: 'marks-dropped'; marks: readonly MarkName[] }
  | {
      code: 'by-hand';
      places: readonly { place: string; shows?: string; turned: boolean }[];
      folded: boolean;
    }
  | { code: 'by-hand-gone'; count: number }
  | { code: 'sheet-too-small'; sheet: Size; needed: Size; of?: 'cover' }
  | { code: 'bleed-off-sheet'; sheet: Size; needed: Size; of?: 'cover' }
  | { code: 'marks-off-sheet'; sheet: Size; needed: Size; of?: 'cover' };
type Mends = 'first-side' | 'as-planned' | 'drop-gone' | 'fill-with-blanks' | 'larger-sheet';
type Finding = FindingOf<Found, Mends>;
type Mend = MendOf<Mends>;

/** Page counts that fill no last sheet, a first page on the wrong side, and sheets too small for what they carry. */
const checkSheets: Check<Found, Mends> = ({ list, docket: { scheme }, plan }) => {
  if (!plan) return [];
  const findings = droppedMarks(plan);
  if (!('stock' in scheme)) return findings;
  const book = 'pad' in scheme;
  const bound = scheme.kind === 'signatures' ? list.pages.length - 2 * leavesApart(list) : list.pages.length;
  const count = book ? blanksOf(list, scheme) : 0;
  if (book && count)
    findings.push({
      code: 'blanks-wanted',
      count,
      total: bound,
      by: pagesThatFill(scheme, list),
      pad: scheme.pad,
      level: 'look',
      stage: 'sheets',
      pages: [],
      mend: fillWith(count, scheme.pad),
      otherMend: fillWith(count, scheme.pad === 'end' ? 'before-last' : 'end'),
    });
  const front = frontSide(list.book);
  if (book && list.book.facing && list.book.first !== front)
    findings.push({
      code: 'first-page-side',
      side: front,
      level: 'stop',
      stage: 'sheets',
      pages: [firstOf(list.pages).id],
      mend: { code: 'first-side', book: { first: front }, data: { side: front } },
    });
  if (plan.apart) {
    const each = plan.copies.across * plan.copies.up;
    findings.push({
      code: 'gang-apart',
      wanted: plan.apart,
      sheets: plan.apart.map((pieces) => Math.ceil(pieces / each)),
      level: 'look',
      stage: 'sheets',
      pages: [],
    });
  }
  return [...findings, ...changedByHand(plan, scheme), ...tooSmall(plan, scheme, (stock) => ({ stock }))];
};

/** Marks for which the first sheet has no room; others are like it. */
function droppedMarks(plan: SheetPlan): Finding[] {
  const sheet = plan.lay ? plan.lay(0) : plan.sheets[0];
  const dropped = new Set([...(sheet?.front.dropped ?? []), ...(sheet?.back?.dropped ?? [])]);
  const marks = MARKS.map(({ kind }) => kind).filter((kind) => dropped.has(kind));
  return marks.length ? [{ code: 'marks-dropped', marks, level: 'look', stage: 'sheets', pages: [] }] : [];
}

/** Cells that were changed by hand: what the folded or cut piece shows for it. */
function changedByHand({ hand }: SheetPlan, scheme: PressScheme): Finding[] {
  if (!hand) return [];
  const at = { stage: 'sheets', level: 'look', pages: [] } as const;
  const { changed, gone } = hand;
  const places = changed.map(({ place, shows, turned }) => ({
    place: place.name,
    turned,
    ...(shows ? { shows: shows.name } : {}),
  }));
  const left = scheme.byHand!.filter((_, n) => !gone.includes(n));
  return [
    ...(places.length
      ? [
          {
            ...at,
            code: 'by-hand' as const,
            places,
            folded: schemeKind(scheme.kind).makes !== 'cut',
            mend: { code: 'as-planned' as const, scheme: { byHand: undefined } },
          },
        ]
      : []),
    ...(gone.length
      ? [
          {
            ...at,
            code: 'by-hand-gone' as const,
            count: gone.length,
            mend: { code: 'drop-gone' as const, scheme: { byHand: left } },
          },
        ]
      : []),
  ];
}

/** Blanks at one of the two places where they can go. */
const fillWith = (count: number, place: Stitched['pad']): Mend => ({
  code: 'fill-with-blanks',
  steps: [{ kind: 'blank', count, where: place === 'end' ? { at: 'end' } : { at: 'before', pages: 'last' } }],
  data: { count, place },
});

/** A sheet on which trims, bleed or marks find no room; `into` is the scheme's change to another stock, `of` says whose sheet it is. */
export function tooSmall(
  { sheet, needed }: SheetPlan,
  scheme: Press,
  into: (stock: Stock) => Mend['scheme'],
  of?: 'cover',
): Finding[] {
  const printed = printedBox(sheet, scheme);
  const room = { width: widthOf(printed), height: heightOf(printed) };
  const cases = [
    { code: 'sheet-too-small', size: needed.trims, within: sheet, level: 'stop' },
    { code: 'bleed-off-sheet', size: needed.bleeds, within: room, level: 'stop' },
    { code: 'marks-off-sheet', size: needed.marks, within: room, level: 'look' },
  ] as const;
  const found = cases.find(({ size, within }) => !fits(size, within));
  if (!found) return [];
  const off = { width: sheet.width - room.width, height: sheet.height - room.height };
  const wanted = { width: needed.marks.width + off.width, height: needed.marks.height + off.height };
  const mend = largerSheet(wanted, scheme, into);
  return [
    {
      code: found.code,
      sheet,
      needed: wanted,
      ...(of ? { of } : {}),
      level: found.level,
      stage: 'sheets',
      pages: [],
      ...(mend ? { mend } : {}),
    },
  ];
}

/** The smallest stock, by area, that takes everything in one of its orientations. */
function largerSheet(needed: Size, scheme: Press, into: (stock: Stock) => Mend['scheme']): Mend | undefined {
  const [stock] = stocksFor(needed);
  return (
    stock && {
      code: 'larger-sheet',
      scheme: into({ ...scheme.stock, width: stock.width, height: stock.height }),
      data: { name: stock.name },
    }
  );
}

/** The family of these findings. */
export const sheets: CheckKind<'sheets', Found, Mends> = { kind: 'sheets', check: checkSheets };
