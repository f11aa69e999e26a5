import type { Step, StepDraft } from '../docket/steps';
import type { Page, PageList } from '../model/page';
import { resolveSelection, SelectionError } from '../select/selection';
import type { Surveys } from '../model/survey';
import { agreement, foliosOf, workOutOrder } from '../pages/workOutOrder';
import { scanOf } from '../pages/straighten';
import type { Check, CheckKind, FindingOf, JobState } from './finding';
import { entryAt } from '../entries';

/** What this family finds. */
type Found =
  | { code: 'sheet-missing' | 'sheet-doubled'; numbers: readonly number[] }
  | { code: 'order-differs'; agree: number; differ: number }
  | { code: 'scan-unsure'; scans: readonly number[] }
  | { code: 'blank-scans' };
type Mends = 'remove-blank-scans';
type Finding = FindingOf<Found, Mends>;

/** Below this share of pages with a folio that counts up, numbers on the pages prove nothing. */
const ENOUGH = 0.4;

/** What can be wrong with scans: their order, and blank ones among them. */
const checkScans: Check<Found, Mends> = (state) => [...checkOrder(state), ...checkBlank(state)];

/** Blank sides that were scanned along: of a booklet they belong to it, of single sheets they rarely do. */
function checkBlank({ list, surveys }: JobState): Finding[] {
  const ids = list.pages.filter((page) => scanOf(page, surveys)?.blank).map(({ id }) => id);
  if (!ids.length) return [];
  const steps: StepDraft[] = [{ kind: 'remove', pages: { ids } }];
  const mend = { code: 'remove-blank-scans' as const, steps, data: { count: ids.length } };
  return [{ code: 'blank-scans', level: 'note', stage: 'pages', pages: ids, mend }];
}

/** Sheets that are missing, or there twice, in scans that were put in reading order, as the folios on their pages tell. */
const checkOrder = ({ docket, replay, surveys }: JobState): Finding[] =>
  docket.steps.flatMap((step, n): Finding[] => {
    if (step.kind !== 'reading-order' || step.off) return [];
    const [before, after] = [replay.after[n - 1], entryAt(replay.after, n)];
    const unsure = step.byNumbers && before ? unsureScans(step, before, surveys) : [];
    const known = new Set(before?.pages.map(({ id }) => id));
    const pages = after.pages.filter(({ id }) => !known.has(id));
    const folios = pages.map((page) => foliosOf(page, surveys));
    const read = withoutSlips(
      folios.flatMap((values, page) =>
        values.slice(0, 1).map((value) => ({ value, id: entryAt(pages, page).id })),
      ),
    );
    if (read.length < ENOUGH * pages.length || read.length < 2) return unsure;
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
    const findings: Finding[] = [...unsure];
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
    if (findings.length === unsure.length && differ.length && agree.length >= differ.length)
      findings.push({
        code: 'order-differs',
        agree: agree.length,
        differ: differ.length,
        level: 'look',
        ...where,
        pages: differ.map((position) => entryAt(pages, position - 1).id),
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

/** Scans whose numbers do not tell how they lie: where others are turned, nobody can know, and it is not guessed. */
function unsureScans(
  { id, pages }: Extract<Step, { kind: 'reading-order' }>,
  before: PageList,
  surveys: Surveys,
): Finding[] {
  let scans: Page[];
  try {
    scans = resolveSelection(pages, before).flatMap((index) => before.pages[index] ?? []);
  } catch (error) {
    if (error instanceof SelectionError) return [];
    throw error;
  }
  const worked = workOutOrder(scans, surveys, before.book.spine);
  if (!worked?.unsure.length || !worked.mixed) return [];
  return [{ code: 'scan-unsure', scans: worked.unsure, level: 'stop', stage: 'pages', step: id, pages: [] }];
}

/** The family of these findings. */
export const scans: CheckKind<'scans', Found, Mends> = { kind: 'scans', check: checkScans };
