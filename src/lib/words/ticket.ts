import { dayOf } from '../core/numbers/day';
import type { WorkedOut } from '../core/checks';
import { formatLength, formatSize } from '../core/measure/formatLength';
import { sayDate } from '../core/numbers/finish';
import { commonestSize } from '../core/pages/sizes';
import { cutAt, cutList } from '../core/sheets/cuts';
import { runOf } from '../core/sheets/run';
import { allSheets, type SheetPlan } from '../core/sheets/plan';
import { layTicket, type TicketPart } from '../core/sheets/ticket';
import type { Stock } from '../core/paper/stock';
import { plural, sayFinding, saySize } from './findings';
import { SCHEME_NAME, WORK_STYLE_NAME } from './schemes';

/** Cuts that a ticket lists; a longer list is handed over as its own. */
const MOST_CUTS = 16;

/** The job ticket of a job as it stands; `despite` is why it goes out though findings say stop. */
export function ticketPlan(work: WorkedOut, at: Date, despite?: string): SheetPlan {
  const { docket, list, plan, findings } = work;
  const { unit, scheme } = docket;
  const length = (points: number) => formatLength(points, unit);
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
    { heading: 'Made as', lines: [SCHEME_NAME[scheme.kind], ...pressLines(work)] },
    ...('stock' in scheme ? [{ heading: 'Paper', lines: stockLines(scheme.stock, work) }] : []),
    ...(plan ? [{ heading: 'Sheets', lines: sheetLines(plan, work) }] : []),
    { heading: 'Folds, on the front of sheet 1', lines: foldLines(plan, length) },
    { heading: 'Cuts, on the front of sheet 1', lines: scheme.kind === 'flat' ? cutLines(plan, length) : [] },
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

function foldLines(plan: SheetPlan | undefined, length: (points: number) => string): string[] {
  const folds = plan?.sheets[0]?.front.lines.filter(({ kind }) => kind === 'fold') ?? [];
  const at = (upright: boolean) =>
    [
      ...new Set(
        folds
          .filter((each) => (each.x0 === each.x1) === upright)
          .map(({ x0, y0 }) => length(upright ? x0 : y0)),
      ),
    ].join(', ');
  return [
    ...(at(true) ? [`upright, from the left: ${at(true)}`] : []),
    ...(at(false) ? [`level, from the foot: ${at(false)}`] : []),
  ];
}

function cutLines(plan: SheetPlan | undefined, length: (points: number) => string): string[] {
  const cuts = (plan?.sheets[0] && cutList(plan.sheets[0])) ?? [];
  const said = cuts
    .slice(0, MOST_CUTS)
    .map(
      (cut) =>
        `${cut.number}. ${length(cutAt(cut))} from ${cut.axis === 'vertical' ? 'the left' : 'the foot'}`,
    );
  return cuts.length > MOST_CUTS
    ? [said.join(' · '), `${cuts.length} cuts in all`]
    : said.length
      ? [said.join(' · ')]
      : [];
}
