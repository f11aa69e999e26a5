import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { give, make, markedPdf, readBack, wordsOf } from '../../../../tests/outside';
import { bookOf, docketOf, hashOf, plainSurvey, takeInStep } from '../../../../tests/makers';
import { workOut, type WorkedOut } from '../../core/checks';
import { sourcesOf } from '../../core/docket/docket';
import { readDocket } from '../../core/docket/readDocket';
import { narrowedWidths, panelWidths } from '../../core/fold/widths';
import { patternOf, type Pattern } from '../../core/fold/patterns';
import { askedOf } from '../../core/handover/outputs';
import { disagreements } from '../../core/handover/agree';
import { readWritten } from './written';
import { contains, sizeBox } from '../../core/measure/box';
import { mm } from '../../core/measure/unit';
import { rescue } from '../../core/pages/rescue';
import { SPINES } from '../../core/model/page';
import { runOf } from '../../core/sheets/run';
import { PLAIN_SCHEMES, type PressScheme } from '../../core/sheets/schemes';
import { surveyPdf } from './survey';

const CASES = join(import.meta.dirname, '..', '..', '..', '..', 'tests', 'cases', 'geometry');
/** A case worked out over the file that it names. */
async function caseOf(name: string): Promise<WorkedOut> {
  const docket = readDocket(JSON.parse(readFileSync(join(CASES, `${name}.json`), 'utf8')));
  const [step] = docket.steps;
  const survey = await surveyPdf(readFileSync(join(CASES, step?.kind === 'take-in' ? step.name : '')));
  return workOut(docket, Object.fromEntries(sourcesOf(docket).map((source) => [source, survey])));
}
const codes = ({ findings }: WorkedOut) => findings.map(({ code }) => code).sort();

describe('cases', () => {
  // The reading-order case is about sheets made here: see below.
  const all = readdirSync(CASES).flatMap((file) =>
    file.endsWith('.json') && !file.includes('reading') ? [file.replace('.json', '')] : [],
  );
  test.each(all)('%s: nothing says stop, all that is printed lies on its sheet', async (name) => {
    const work = await caseOf(name);
    expect(work.findings.filter(({ level }) => level === 'stop')).toEqual([]);
    for (const { front, back, size } of work.plan!.sheets)
      for (const side of [front, back])
        for (const line of side?.lines ?? [])
          if (line.kind.endsWith('mark')) expect(contains(sizeBox(size), line, 0.01)).toBe(true);
  });

  test('a letter fold of single panels is as it must be; single pages have room for every mark', async () => {
    expect(codes(await caseOf('S2-letter-panels'))).toEqual([]);
    const { plan } = await caseOf('S2-single-marks');
    for (const { front } of plan!.sheets) {
      expect(front.dropped).toBeUndefined();
      expect(front.marks!.filter(({ kind }) => kind === 'circle')).toHaveLength(4);
      expect(front.marks!.some(({ kind }) => kind === 'text')).toBe(true);
      expect(front.marks!.filter(({ kind }) => kind === 'rect').length).toBeGreaterThanOrEqual(8);
      expect(front.lines.filter(({ kind }) => kind === 'centre-mark')).toHaveLength(4);
    }
  });

  test('what does not fit on one ganged sheet is told, and printed as often as it is wanted', async () => {
    const work = await caseOf('S3-gang-fallback');
    expect(codes(work)).toContain('gang-apart');
    const { copies, apart } = work.plan!;
    const each = copies.across * copies.up;
    expect(apart).toEqual([10, 20, 50, 50]);
    const net = [10, 20, 50, 50].map((pieces) => Math.ceil(pieces / each));
    const sum = (counts: number[]) => counts.reduce((all, count) => all + count, 0);
    // 5 % overs of each sheet.
    expect(runOf(work.plan!, work.docket.scheme as PressScheme)).toMatchObject({
      net: sum(net),
      overs: sum(net.map((count) => Math.ceil(count * 0.05))),
    });
  });

  test('a fold-out in a stitched booklet of eights is a sheet of four among them, nested at its place', async () => {
    const { plan } = await caseOf('S3-foldout-stitched8');
    const sides = plan!.sheets.map(({ front, back }) =>
      [front, back!].map(({ cells }) => cells.map(({ name }) => name).join(' ')),
    );
    expect(sides).toEqual([
      ['8 1', '2 7'],
      ['6 3 3+1 front', '3+1 back 4 5'],
    ]);
  });
});

describe('folds work along and across alike', () => {
  const paper = { allowance: mm(2), caliper: 0 };
  const gate = patternOf({ fold: 'gate' });
  const turned: Pattern = {
    columns: gate.rows,
    rows: gate.columns,
    folds: gate.folds.map((fold) => ({ ...fold, axis: 'horizontal' as const })),
  };
  test('a gatefold from head and foot as one from the sides', () => {
    const across = panelWidths(gate, 'vertical', mm(418), paper).map(({ width }) => width);
    expect(panelWidths(turned, 'horizontal', mm(418), paper).map(({ width }) => width)).toEqual(across);
  });
  test('the mend keeps the finished size: 106, 210, 106 mm becomes 104, 210, 104', () => {
    const given = [106, 210, 106].map(mm);
    for (const [pattern, axis] of [
      [gate, 'vertical'],
      [turned, 'horizontal'],
    ] as const)
      narrowedWidths(pattern, axis, given, paper).forEach((width, n) =>
        expect(width).toBeCloseTo(mm([104, 210, 104][n]!), 6),
      );
  });
});

// Sheets turned as the leaves of the book turn: a scan of each side, put in reading order, is the book.
test.each(SPINES)(
  'signatures of 8, 16 and 32 bound at the %s: sheets made here give their pages back',
  (spine) => {
    const first = ({ left: 'right', right: 'left', head: 'lower' } as const)[spine];
    for (const pages of [8, 16, 32] as const)
      for (const turn of ['short-edge', 'long-edge'] as const) {
        const { plan } = workOut(
          docketOf([takeInStep('a')], {
            book: bookOf(first, { spine }),
            scheme: {
              ...PLAIN_SCHEMES.signatures,
              signature: pages,
              turn,
              stock: { width: mm(2000), height: mm(2100) },
            },
          }),
          { [hashOf('a')]: plainSurvey(2 * pages) },
        );
        if ((plan!.turnAxis === 'horizontal') !== (spine === 'head')) continue;
        const scans = plan!.sheets.flatMap(({ front, back }) => [front.cells, back!.cells]);
        const found = rescue(scans.length, { by: 'signature', pages }, spine);
        expect(found.map(({ scan, part }) => scans[scan]![part]!.position)).toEqual(
          Array.from({ length: 2 * pages }, (_, n) => n + 1),
        );
        expect(found.map(({ scan, part, turn: by }) => (scans[scan]![part]!.turn + by) % 360)).toEqual(
          Array<number>(2 * pages).fill(0),
        );
      }
  },
);

test('a page that was lost in writing a sheet is noticed when the file is read again', async () => {
  const given = await give(await markedPdf(8));
  const docket = docketOf([
    { id: 't', kind: 'take-in', source: given.hash, name: 'eight.pdf', where: { at: 'end' } },
  ]);
  const written = readBack(await make(docket, { kind: 'sheets' }, given));
  const asked = askedOf(workOut(docket, { [given.hash]: given.survey }), { kind: 'sheets' })!({
    pages: [0, 1, 2, 3],
  });
  expect(disagreements(asked, await readWritten(written, asked))).toEqual([]);
  const lost = Buffer.from(written.toString('latin1').replace('/P2 Do', '      '), 'latin1');
  expect(disagreements(asked, await readWritten(lost, asked))).toEqual([
    { of: 'draws', page: 1, asked: 2, written: 1 },
  ]);
});

test.each(SPINES)(
  'sheets of signatures bound at the %s, turned either way, taken in again: every page in order, upright (poppler)',
  async (spine) => {
    const first = ({ left: 'right', right: 'left', head: 'lower' } as const)[spine];
    const book = bookOf(first, { spine });
    const given = await give(await markedPdf(16, { width: 300, height: 400 }));
    for (const signature of [4, 8, 16] as const)
      for (const turn of ['short-edge', 'long-edge'] as const) {
        const sheets = await make(
          docketOf([{ id: 't', kind: 'take-in', source: given.hash, name: 'a.pdf', where: { at: 'end' } }], {
            book,
            scheme: {
              ...PLAIN_SCHEMES.signatures,
              signature,
              turn,
              roughing: 0,
              cutOff: 0,
              collating: false,
              marks: { trim: false, fold: false },
              stock: { width: 2000, height: 2100 },
            },
          }),
          { kind: 'sheets' },
          given,
        );
        const taken = await give(readBack(sheets));
        const back = await make(
          docketOf(
            [
              { id: 't', kind: 'take-in', source: taken.hash, name: 'sheets.pdf', where: { at: 'end' } },
              {
                id: 'r',
                kind: 'reading-order',
                pages: 'all',
                arrangement:
                  signature === 4
                    ? { by: 'stitched', scans: 'sheets' }
                    : { by: 'signature', pages: signature },
                gutter: 0,
              },
            ],
            { book },
          ),
          { kind: 'pages', crop: 'trim' },
          taken,
        );
        // Signatures of four, gathered, are no nested sheets: only the turns are looked at.
        const words = wordsOf(back).map((page) => page.filter(({ text }) => /^(P\d+|HEAD\d+)$/.test(text)));
        for (const page of words) {
          const [mark, head] = [
            page.find(({ text }) => text.startsWith('P'))!,
            page.find(({ text }) => text.startsWith('H'))!,
          ];
          expect(head.y).toBeGreaterThan(mark.y);
        }
        if (signature !== 4)
          expect(words.map((page) => page.find(({ text }) => text.startsWith('P'))!.text)).toEqual(
            Array.from({ length: 16 }, (_, n) => `P${n + 1}`),
          );
      }
  },
  60_000,
);
