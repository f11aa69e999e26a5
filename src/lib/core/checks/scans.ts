import { agreement, foliosOf } from '../pages/workOutOrder';
import type { Check, Finding } from './finding';

/** Below this share of pages with a folio that counts up, numbers on the pages prove nothing. */
const ENOUGH = 0.4;

/** Sheets that are missing, or there twice, in scans that were put in reading order, as the folios on their pages tell. */
export const checkScans: Check = ({ docket, replay, surveys }) =>
  docket.steps.flatMap((step, n): Finding[] => {
    if (step.kind !== 'reading-order' || step.off) return [];
    const [before, after] = [replay.after[n - 1], replay.after[n]!];
    const known = new Set(before?.pages.map(({ id }) => id));
    const pages = after.pages.filter(({ id }) => !known.has(id));
    const folios = pages.map((page) => foliosOf(page, surveys));
    const read = withoutSlips(
      folios.flatMap((values, page) => values.slice(0, 1).map((value) => ({ value, id: pages[page]!.id }))),
    );
    if (read.length < ENOUGH * pages.length || read.length < 2) return [];
    const values = read.map(({ value }) => value);
    const numbers = new Set(values);
    const [least, most] = [Math.min(...values), Math.max(...values)];
    const gaps = Array.from({ length: most - least + 1 }, (_, i) => least + i).filter(
      (value) => !numbers.has(value),
    );
    // Pages whose number is not printed, or misread, leave gaps too; those are not missing.
    const unread = pages.length - read.length;
    const twice = read.filter(({ value }, i) => values.indexOf(value) !== i);
    const where = { stage: 'pages', step: step.id } as const;
    const findings: Finding[] = [];
    if (gaps.length > unread)
      findings.push({ code: 'sheet-missing', numbers: gaps, level: 'stop', ...where, pages: [] });
    if (twice.length)
      findings.push({
        code: 'sheet-doubled',
        numbers: [...new Set(twice.map(({ value }) => value))],
        level: 'stop',
        ...where,
        pages: twice.map(({ id }) => id),
      });
    const { agree, differ } = agreement(folios);
    if (!findings.length && differ.length && agree.length >= differ.length)
      findings.push({
        code: 'order-differs',
        agree: agree.length,
        differ: differ.length,
        level: 'look',
        ...where,
        pages: differ.map((position) => pages[position - 1]!.id),
      });
    return findings;
  });

/** Numbers but those that fit neither side of what stands around them, while that counts up: they were misread or misprinted. */
const withoutSlips = <T extends { value: number }>(read: readonly T[]): T[] =>
  read.filter(({ value }, i) => {
    const before = read[i - 1]?.value ?? (read[i + 1]?.value ?? value) - read.length;
    const after = read[i + 1]?.value ?? before + read.length;
    return before >= after || (value >= before && value <= after);
  });
