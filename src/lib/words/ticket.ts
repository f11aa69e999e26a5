import { t } from './language';
import { dayOf } from '../core/numbers/day';
import type { WorkedOut } from '../core/checks';
import { drawCover, drawCuts, drawFold, drawTrim, type Drawing } from '../core/finish/drawings';
import { finishPlanOf } from '../core/finish/finishPlan';
import { PLACE_OF, PLACES, type FinishPlan, type Operation } from '../core/finish/operations';
import type { Proved } from '../core/finish/proof';
import { layTicket, type TicketBlock, type TicketPage } from '../core/finish/ticket';
import { formatSize } from '../core/measure/formatLength';
import { writeNumber } from '../core/measure/decimalSign';
import { sayDate } from '../core/numbers/finish';
import { commonestSize } from '../core/pages/sizes';
import { runOf } from '../core/sheets/run';
import { allSheets, type SheetPlan } from '../core/sheets/plan';
import type { Scheme } from '../core/sheets/schemes';
import { sayFinding } from './checks';
import { coverPartName, PLACE_NAME, sayOperation } from './finishing';
import { plural } from './plural';
import { sayProved } from './proof';
import { saySize } from './sizes';
import { foldWords } from './folds';
import { schemeWords } from './schemes';

interface Said {
  despite?: string | undefined;
  proved?: Proved | undefined;
}

/** The job ticket of a job as it stands, a page or more for each place of the work, with what is said of it: why it goes out though findings say stop, and what proof there is of it. */
export function ticketPlan(work: WorkedOut, at: Date, said: Said = {}): SheetPlan {
  const { docket, list, plan } = work;
  const finish = plan && finishPlanOf({ list, plan, scheme: docket.scheme }, docket.title);
  return layTicket({
    title: docket.title,
    under: (place, page, of) => t`Job ticket · ${sayDate(dayOf(at))} · ${place} · page ${page} of ${of}`,
    pages: [
      { place: t`The job`, blocks: jobBlocks(work, finish, said) },
      ...(finish ? placePages(finish, work) : []),
    ],
  });
}

/** What the job is, what comes out of it, and what was found. */
function jobBlocks(
  work: WorkedOut,
  finish: FinishPlan | undefined,
  { despite, proved }: Said,
): TicketBlock[] {
  const { docket, list, plan, findings } = work;
  const { unit, scheme } = docket;
  const size = commonestSize(list.pages);
  const sizes = new Set(list.pages.map(({ trim }) => formatSize(trim.width, trim.height, unit)));
  const open = findings.filter(({ level }) => level !== 'note');
  const counted = finish?.operations.filter(({ kind }) => kind === 'count') ?? [];
  return [
    {
      heading: t`Pages`,
      lines: [
        `${plural(list.pages.length, 'page')}${size ? `, ${saySize(size, unit)}` : ''}${sizes.size > 1 ? t` and ${plural(sizes.size - 1, 'other size')}` : ''}`,
        ...(list.panels?.length ? [t`${plural(list.panels.length, 'face')} of fold-out panels besides`] : []),
      ],
    },
    { heading: t`Made as`, lines: [madeAs(scheme), ...(plan ? sheetLines(plan, work) : [])] },
    ...counted.map((operation): TicketBlock => {
      const { does, lines } = sayOperation(operation, unit, '');
      return { heading: does, lines };
    }),
    {
      heading: open.length ? t`Findings (${open.length})` : t`Findings`,
      lines: open.length
        ? open.map((finding) => {
            const { title, text } = sayFinding(finding, unit);
            return `${finding.level === 'stop' ? t`STOP` : t`Look`}: ${title}. ${text}`;
          })
        : [t`none`],
    },
    ...(proved ? [{ heading: t`Proof`, lines: [sayProved(proved)] }] : []),
    ...(despite ? [{ heading: t`Handed over all the same`, lines: [despite] }] : []),
  ];
}

/** What the work becomes, with the name of a fold. */
const madeAs = (scheme: Scheme): string =>
  [schemeWords(scheme.kind).name, 'pattern' in scheme && foldWords(scheme.pattern.fold).name]
    .filter(Boolean)
    .join(', ');

function sheetLines(plan: SheetPlan, { docket: { scheme } }: WorkedOut): string[] {
  const { across, up } = plan.copies;
  const run = 'run' in scheme ? runOf(plan, scheme) : undefined;
  return [
    `${plural(allSheets(plan), 'sheet')}${plan.cover ? t`, the cover among them` : ''}${across * up > 1 ? t`, ${across} × ${up} of the piece on each` : ''}`,
    ...(run ? [t`${run.net} + ${run.overs} overs = ${run.sheets} of each sheet, ${run.all} in all`] : []),
    ...(run?.pieceGrams === undefined
      ? []
      : [t`one piece weighs ${writeNumber(run.pieceGrams.toFixed(1))} g`]),
  ];
}

/** Each place of the work, with its operations by their numbers; the press sees what it prints. */
function placePages(finish: FinishPlan, { docket: { unit }, plan }: WorkedOut): TicketPage[] {
  const numbered = finish.operations.map((operation, n) => ({ operation, number: `${n + 1}` }));
  return PLACES.flatMap((place): TicketPage[] => {
    const here = numbered.filter(({ operation: { kind } }) => kind !== 'count' && PLACE_OF[kind] === place);
    if (!here.length) return [];
    const blocks = here.map(({ operation, number }): TicketBlock => {
      const { does, lines } = sayOperation(operation, unit, number);
      return { heading: `${number}. ${does}`, lines, drawings: drawingsOf(operation, finish, number) };
    });
    return [
      { place: PLACE_NAME[place], blocks, ...(place === 'press' && plan ? { shows: shown(plan) } : {}) },
    ];
  });
}

/** The first sheet, and that of a cover. */
function shown(plan: SheetPlan): NonNullable<TicketPage['shows']> {
  const sides = (sheet: string) => ({ front: t`${sheet}, front`, back: t`${sheet}, back` });
  return [
    { plan, index: 0, sides: sides(t`Sheet 1`) },
    ...(plan.cover
      ? [{ plan, index: plan.sheetCount, sides: sides(t`Sheet ${plan.sheetCount + 1}, the cover`) }]
      : []),
  ];
}

function drawingsOf(operation: Operation, { operations }: FinishPlan, number: string): Drawing[] {
  switch (operation.kind) {
    case 'cut': {
      const [sheet] = operation.sheets;
      const printed = operations.find((each) => each.kind === 'print' && each.sheets.includes(sheet!));
      return printed?.kind === 'print' && operation.cuts.length
        ? [
            drawCuts(
              printed.paper,
              operation.cuts,
              operation.pieces,
              t`cuts by their numbers, arrows to the heads`,
            ),
          ]
        : [];
    }
    case 'fold':
      return operation.folds.map((fold) => drawFold(fold, operation.size, `${number}.${fold.number}`));
    case 'trim':
      return [drawTrim(operation, t`knives in their order, the spine thick`)];
    case 'cover': {
      const trim = operations.find((each) => each.kind === 'trim');
      const across =
        trim?.kind === 'trim' ? (operation.spine === 'head' ? trim.size.width : trim.size.height) : 0;
      const names = operation.parts.map(({ part }) => coverPartName(part));
      return across
        ? [drawCover(operation, across + 2 * operation.inside, names, t`outside up, creases dashed`)]
        : [];
    }
    case 'print':
    case 'cut-out':
    case 'nest':
    case 'gather':
    case 'tip-in':
    case 'bind':
    case 'stack':
    case 'count':
      return [];
  }
}
