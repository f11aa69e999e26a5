import { dayOf } from '../core/numbers/day';
import type { WorkedOut } from '../core/checks';
import { formatFigure, formatLength, formatSize, UNIT_SIGN } from '../core/measure/formatLength';
import { sayDate } from '../core/numbers/finish';
import { commonestSize } from '../core/pages/sizes';
import { cutsOfPlan } from '../core/finish/cuts';
import { foldsOfPlan } from '../core/finish/folds';
import type { CutOperation, FoldOperation } from '../core/finish/operations';
import type { Unit } from '../core/measure/unit';
import { describeIndexes } from '../core/select/selection';
import { runOf } from '../core/sheets/run';
import { allSheets, type SheetPlan } from '../core/sheets/plan';
import { layTicket, type TicketPart } from '../core/sheets/ticket';
import type { Stock } from '../core/paper/stock';
import { sayFinding } from './checks';
import { plural } from './plural';
import { saySize } from './sizes';
import { WORK_STYLE_NAME } from './press';
import { schemeWords } from './schemes';
import { firstOf } from '../core/entries';

/** The job ticket of a job as it stands; `despite` is why it goes out though findings say stop. */
export function ticketPlan(work: WorkedOut, at: Date, despite?: string): SheetPlan {
  const { docket, list, plan, findings } = work;
  const { unit, scheme } = docket;
  const size = commonestSize(list.pages);
  const sizes = new Set(list.pages.map(({ trim }) => formatSize(trim.width, trim.height, unit)));
  const open = findings.filter(({ level }) => level !== 'note');
  const parts: TicketPart[] = [
    {
      heading: 'Pages',
      lines: [
        `${plural(list.pages.length, 'page')}${size ? `, ${saySize(size, unit)}` : ''}${sizes.size > 1 ? ` and ${plural(sizes.size - 1, 'other size')}` : ''}`,
        ...(list.panels?.length ? [`${plural(list.panels.length, 'face')} of fold-out panels besides`] : []),
      ],
    },
    { heading: 'Made as', lines: [schemeWords(scheme.kind).name, ...pressLines(work)] },
    ...('stock' in scheme ? [{ heading: 'Paper', lines: stockLines(scheme.stock, work) }] : []),
    ...(plan ? [{ heading: 'Sheets', lines: sheetLines(plan, work) }] : []),
    {
      heading: 'Cuts, front up, waste in brackets',
      lines: scheme.kind === 'flat' ? cutLines(plan, unit) : [],
    },
    { heading: 'Folds, front up, in this order', lines: foldLines(plan, unit) },
    {
      heading: open.length ? `Findings (${open.length})` : 'Findings',
      lines: open.length
        ? open.map((finding) => {
            const { title, text } = sayFinding(finding, unit);
            return `${finding.level === 'stop' ? 'STOP' : 'Look'}: ${title}. ${text}`;
          })
        : ['none'],
    },
    { heading: 'Handed over all the same', lines: despite ? [despite] : [] },
  ];
  return layTicket(
    {
      title: docket.title,
      under: `Job ticket · ${sayDate(dayOf(at))}`,
      parts,
      more: (count) => `… and ${plural(count, 'line')} more: see the job`,
      sides: { front: 'Sheet 1, front', back: 'Sheet 1, back' },
    },
    plan,
  );
}

function pressLines({ docket: { scheme }, plan }: WorkedOut): string[] {
  if (!plan || !('stock' in scheme)) return [];
  const turned = plan.turnAxis === 'vertical' ? 'from side to side' : 'from head to foot';
  return [`${WORK_STYLE_NAME[plan.work]}${plan.work === 'single-side' ? '' : `, turned over ${turned}`}`];
}

function stockLines(stock: Stock, { docket: { unit } }: WorkedOut): string[] {
  const { width, height, grammage, grain } = stock;
  return [
    [saySize({ width, height }, unit), grammage && `${grammage} g/m²`, grain && `${grain} grain`]
      .filter(Boolean)
      .join(', '),
  ];
}

function sheetLines(plan: SheetPlan, { docket: { scheme } }: WorkedOut): string[] {
  const { across, up } = plan.copies;
  const run = 'run' in scheme ? runOf(plan, scheme) : undefined;
  return [
    `${plural(allSheets(plan), 'sheet')}${plan.cover ? ', the cover among them' : ''}${across * up > 1 ? `, ${across} × ${up} of the piece on each` : ''}`,
    ...(run
      ? [`${run.pieces} wanted: ${run.net} + ${run.overs} overs = ${run.sheets} of each, ${run.all} in all`]
      : []),
    ...(run?.pieceGrams === undefined ? [] : [`one piece weighs ${run.pieceGrams.toFixed(1)} g`]),
  ];
}

const runs = (numbers: readonly number[]): string => describeIndexes(numbers.map((number) => number - 1));

/** The folds in the order in which they are made; sheets that are folded alike once. */
function foldLines(plan: SheetPlan | undefined, unit: Unit): string[] {
  const groups = plan ? foldsOfPlan(plan).filter(({ folds }) => folds.length) : [];
  return groups.flatMap(({ sheets, of, cutFirst, size, folds }) => [
    `${of ?? `${sheets.length > 1 ? 'Sheets' : 'Sheet'} ${runs(sheets)}`}, ${cutFirst ? 'cut to' : 'whole,'} ${formatSize(size.width, size.height, unit)}:`,
    ...folds.map((fold) => `${fold.number}. ${sayFold(fold, unit)}`),
  ]);
}

/** One fold as an operator is told it: `upright, 100 mm from the left: left part under`. */
export function sayFold({ axis, at, moves, goes, layers, there }: FoldOperation, unit: Unit): string {
  const part = { left: 'left', right: 'right', head: 'upper', foot: 'lower' }[moves];
  const where = axis === 'vertical' ? 'upright' : 'level';
  const from = axis === 'vertical' ? 'the left' : 'the foot';
  return `${where}, ${formatLength(at, unit)} from ${from}: ${part} part ${goes}${layers < there ? `, ${layers} of ${there} layers` : layers > 1 ? `, ${layers} layers` : ''}`;
}

/** What is cut, and where: strips that are cut alike once, in a line for each way that paper lies under the knife. */
function cutLines(plan: SheetPlan | undefined, unit: Unit): string[] {
  return (plan ? cutsOfPlan(plan) : []).flatMap(({ sheets, cuts }, _, all) => {
    const on = all.length > 1 ? `${sheets.length > 1 ? 'Sheets' : 'Sheet'} ${runs(sheets)}: ` : '';
    if (!cuts) return [`${on}no cut goes right through between the pieces`];
    const lines: CutOperation[][] = [];
    for (const cut of cuts) {
      const last = lines.at(-1);
      if (last && firstOf(last).strips === cut.strips && firstOf(last).axis === cut.axis) last.push(cut);
      else lines.push([cut]);
    }
    return lines.map((line) => {
      const { number, axis, paper, strips } = firstOf(line);
      const [from, places] = [
        axis === 'vertical' ? 'the left' : 'the foot',
        line
          .map(({ at, off }) => (off === 'waste' ? `(${formatFigure(at, unit)})` : formatFigure(at, unit)))
          .join(' · '),
      ];
      const numbers = line.length > 1 ? `${number}–${number + line.length - 1}` : `${number}`;
      return `${on}${numbers}. ${sayStrips(strips)}, ${formatSize(paper.width, paper.height, unit)}, from ${from}: ${places} ${UNIT_SIGN[unit]}`;
    });
  });
}

/** Strips by their names: `the sheet`, `strips 1-4`, `strip 2.1`. */
export function sayStrips(strips: readonly string[]): string {
  if (strips.every((name) => !name)) return 'the sheet';
  const whole = strips.every((name) => /^\d+$/.test(name));
  return `${strips.length > 1 ? 'strips' : 'strip'} ${whole ? runs(strips.map(Number)) : strips.join(', ')}`;
}
