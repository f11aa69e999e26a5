import type { Size } from '../measure/box';
import { frontSide } from '../pages/page';
import { fits, stocksFor } from '../paper/stock';
import type { Stitched } from '../sheets/scheme';
import { blanksWanted } from '../sheets/stitched';
import type { Check, Finding, Mend } from './finding';

/** Page counts that fill no last sheet, a first page on the wrong side, and sheets too small for what they carry. */
export const checkSheets: Check = ({ list, docket: { scheme }, plan }) => {
  if (!plan || scheme.kind !== 'stitched') return [];
  const findings: Finding[] = [];
  const count = blanksWanted(list.pages.length);
  if (count)
    findings.push({
      code: 'blanks-wanted',
      count,
      total: list.pages.length,
      pad: scheme.pad,
      level: 'look',
      stage: 'sheets',
      pages: [],
      mend: fillWith(count, scheme.pad),
      otherMend: fillWith(count, scheme.pad === 'end' ? 'before-last' : 'end'),
    });
  const front = frontSide(list.book);
  if (list.book.facing && list.book.first !== front)
    findings.push({
      code: 'first-page-side',
      side: front,
      level: 'stop',
      stage: 'sheets',
      pages: [list.pages[0]!.id],
      mend: { code: 'first-side', book: { first: front }, data: { side: front } },
    });
  return [...findings, ...tooSmall(plan.sheet, plan.needed)];
};

/** Blanks at one of the two places where they can go. */
const fillWith = (count: number, place: Stitched['pad']): Mend => ({
  code: 'fill-with-blanks',
  steps: [{ kind: 'blank', count, where: place === 'end' ? { at: 'end' } : { at: 'before', pages: 'last' } }],
  data: { count, place },
});

function tooSmall(sheet: Size, needed: { trims: Size; bleeds: Size; marks: Size }): Finding[] {
  const cases = [
    { code: 'sheet-too-small', size: needed.trims, level: 'stop' },
    { code: 'bleed-off-sheet', size: needed.bleeds, level: 'stop' },
    { code: 'marks-off-sheet', size: needed.marks, level: 'look' },
  ] as const;
  const found = cases.find(({ size }) => !fits(size, sheet));
  if (!found) return [];
  return [
    {
      code: found.code,
      sheet,
      needed: needed.marks,
      level: found.level,
      stage: 'sheets',
      pages: [],
      mend: largerSheet(needed.marks),
    },
  ];
}

/** The smallest stock, by area, that takes everything in one of its orientations. */
function largerSheet(needed: Size): Mend | undefined {
  const [stock] = stocksFor(needed);
  return (
    stock && {
      code: 'larger-sheet',
      scheme: { stock: { width: stock.width, height: stock.height } },
      data: { name: stock.name },
    }
  );
}
