import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { beforeAll, expect, test } from 'vitest';
import { demoJobs, type DemoJob } from '../../../tests/demoJobs';
import { planOf, pressOf, wrongWith } from '../../../tests/finished';
import { tool, wordsOf } from '../../../tests/outside';
import { readTicket } from '../../../tests/readTicket';
import { workOut } from '../core/checks';
import { dummyScale } from '../core/finish/dummy';
import { intendedOf } from '../core/finish/intended';
import { runLine } from '../core/finish/line/runLine';
import { finishPlanSchema } from '../core/finish/operations';
import type { Output } from '../core/handover/outputs';
import { applyToPoint, invert } from '../core/measure/matrix';
import { sidePlaces } from '../core/sheets/plan';
import { handOver } from './handOver';

let jobs: DemoJob[];
beforeAll(async () => {
  jobs = await demoJobs();
});
const jobOf = (title: string): DemoJob => jobs.find(({ docket }) => docket.title === title)!;

/** The file of an output of a demo job. */
async function made({ docket, ...job }: DemoJob, output: Output): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'folder-ticket-'));
  const [made] = await handOver(docket, output, {
    ...job,
    folder,
    at: new Date('2026-01-05T09:00:00Z'),
  });
  return join(folder, made!.file);
}
/** Its text as it was written, without the heads of its pages. */
const textOf = (path: string, title: string): string =>
  tool('pdftotext', '-raw', path, '-')
    .split(/[\n\f]/)
    .filter((line) => line !== title && !line.startsWith('Job ticket ·'))
    .join('\n');

/*
 * What each ticket has to say, by hand: from what the job is (the scenario of the demo) and sums. A 16-page signature on 900 × 640 mm
 * is halved at 450 and 320; its last fold lies behind what comes off the fore edge (3), a page (148) and the roughing (3). 64 leaves
 * of 100 g/m² at 1.2 cm³/g are 64 × 0.12 = 7.68 mm thick. SRA3 lies with its middle at 225; (320 − 210) / 2 = 55. Three panels of
 * 99 mm; a gate of 104 + 210 + 104 = 418 mm. 1000 letterheads, 4 on a sheet, are 250 sheets.
 */
test.each<[title: string, says: (string | RegExp)[]]>([
  [
    'Footplate handbook',
    [
      'Print sheets 1-8 on both sides',
      'Paper 900 × 640 mm, 100 g/m², 0.12 mm thick, long grain',
      'sheetwise, turned over from side to side',
      '400 + 12 overs = 412 of each sheet, 3296 in all',
      'Print sheet 9 on one side',
      /Paper 450 × 320 mm, 250 g\/m², [\d.]+ mm thick, short grain/,
      '1 upright, 450 mm from the left: left part under',
      '2 level, 320 mm from the foot: upper part under, 2 layers',
      '3 upright, 154 mm from the left: left part under, 4 layers',
      'Gather sheets 1, 2, 3, 4, 5, 6, 7, 8: the first on top',
      'Take 3 mm off the spine, at the left, roughen it and glue it',
      'Creases from the left: 151 · 158.68 mm',
      'back 148 · spine 7.68 · front 148 mm',
      'Trim to 148 × 210 mm',
      '400 wanted',
    ],
  ],
  [
    'Season timetable',
    [
      'Print sheets 1-4 on both sides',
      'Fold sheets 1-4, 450 × 320 mm, front up',
      '1 upright, 225 mm from the left: left part under',
      'Nest sheets 1, 2, 3, 4: each inside the one before',
      'The trim of sheets 1-4 lies 55 mm inside the head.',
      'Wire-stitch through the fold, at the left',
      '1. fore edge, 148 mm from the spine',
      '2. head, 55 mm off',
      '3. foot, 210 mm from the head',
    ],
  ],
  [
    'Gala day leaflet',
    [
      'folded leaflet, letter fold',
      '2000 + 80 overs = 2080 of each sheet',
      'from the foot: (55) · 210 mm',
      'from the left: (76.5) · 297 mm',
      'Fold sheet 1, 297 × 210 mm, front up',
      '1 upright, 99 mm from the left: left part under',
      '2 upright, 99 mm from the left: left part under, 2 layers',
      'Folded it is 99 × 210 mm.',
    ],
  ],
  [
    'Open weekend gate folder',
    [
      'folded leaflet, gatefold',
      '1 upright, 104 mm from the left: left part under',
      '2 upright, 210 mm from the left: right part under',
      'Folded it is 210 × 210 mm.',
    ],
  ],
  [
    'Line guide with fold-out map',
    [
      '1 piece, the sheet: 590 × 210 mm on pile 1',
      '1 upright, 148 mm from the left: left part under',
      '2 upright, 296 mm from the left: right part under',
      '3 upright, 148 mm from the left: left part under, 2 layers',
      'Wire-stitch through the fold, at the left',
    ],
  ],
  [
    'Platform tickets',
    [
      'Print sheets 1-5 on one side',
      'Paper 210 × 297 mm',
      '10 pieces, strips 1.1, 1.2, 2.1, 2.2, 3.1, 3.2, 4.1, 4.2, 5.1, 5.2: 57 × 30 mm on pile 1',
      'Lay the cut piles on one another, each with sheets 1-5, the first sheet on top',
      'from the top: strips 5.1, 5.2, 4.1, 4.2, 3.1, 3.2, 2.1, 2.2, 1.1, 1.2; 50 pieces',
    ],
  ],
  [
    'Station stationery',
    [
      'Print sheet 1 on one side',
      '250 + 8 overs = 258 of each sheet',
      'Letterhead: 210 × 297 mm, 1000 wanted',
      'Envelope: 220 × 110 mm, 1000 wanted',
      /pile 1, Letterhead: 4 pieces from each sheet/,
      /pile \d, Envelope: 4 pieces from each sheet/,
      /4 pieces, strips [\d., ]+: 297 × 210 mm on pile 1, turned by a quarter/,
    ],
  ],
])(
  'the ticket of the %s says all that is to be done, every figure in its text (poppler)',
  async (title, says) => {
    const path = await made(jobOf(title), { kind: 'ticket' });
    tool('qpdf', '--check', path);
    const text = textOf(path, title).replace(/\s+/g, ' ');
    for (const words of says)
      if (typeof words === 'string') expect(text).toContain(words);
      else expect(text).toMatch(words);
    expect(tool('pdfinfo', path)).toMatch(/A4/);
  },
);

test('who reads the tickets of the demo and knows nothing else gets every piece, its pages in order and upright (poppler)', async () => {
  for (const job of jobs) {
    const { title } = job.docket;
    const work = workOut(job.docket, job.surveys);
    // Panels as wide as their leaf reach into the spine: a stop, and taken for leaves.
    if (work.findings.some(({ code }) => code === 'panel-too-wide')) continue;
    const read = readTicket(textOf(await made(job, { kind: 'ticket' }), title));
    const out = runLine({ ...planOf(work), operations: read });
    // Odd pages of the handbook are larger than the rest, which is found elsewhere.
    const wrong = out.flatMap((piece) => wrongWith(work, piece, pressOf(work.plan!), 500));
    const turned = title.includes('turned cell') ? ['{"leaf":12,"face":"front"}: turned'] : [];
    expect([title, wrong.filter((text) => !text.includes('moved'))]).toEqual([title, turned]);
    expect(out.map(({ product, copy, pages }) => [product, copy, pages.length])).toEqual(
      runLine(planOf(work)).map(({ product, copy, pages }) => [product, copy, pages.length]),
    );
  }
});

test('the finishing plan goes out as JSON that its schema takes, and says what the ticket says', async () => {
  for (const job of jobs) {
    const plan = finishPlanSchema.parse(
      JSON.parse(readFileSync(await made(job, { kind: 'finishing' }), 'utf8')),
    );
    const told = readTicket(textOf(await made(job, { kind: 'ticket' }), job.docket.title));
    const kinds = plan.operations.filter(({ kind }) => kind !== 'count').map(({ kind }) => kind);
    expect(told.map(({ kind }) => kind)).toEqual(kinds);
  }
});

test('the paper dummy, folded as the ticket says, has each page’s number on it, on either side (poppler)', async () => {
  let seen = 0;
  for (const job of jobs) {
    const { title } = job.docket;
    const work = workOut(job.docket, job.surveys);
    if (work.findings.some(({ code }) => code === 'panel-too-wide') || title.includes('turned')) continue;
    const { list, plan, docket } = work;
    const path = await made(job, { kind: 'dummy', paper: 'Letter' });
    tool('qpdf', '--check', path);
    expect(tool('pdfinfo', path)).toMatch(/Page size: +(792 x 612|612 x 792)/);
    const sides = wordsOf(path);
    const places = sidePlaces(plan!);
    expect([title, sides.length]).toEqual([title, places.length]);
    for (const { product, pages } of runLine(planOf(work))) {
      const intended = intendedOf({ list, plan: plan!, scheme: docket.scheme }, product);
      pages.forEach((page, n) => {
        const { name, page: wanted } = intended[n]!;
        // Odd pages of the handbook are larger than the rest.
        if (wanted && Math.abs(wanted.trim.width - page.size.width) > 30) return;
        const at = places.findIndex(({ sheet, side }) => sheet === page.sheet && side === page.face);
        if (at < 0 || page.sheet > plan!.sheetCount || !/^\d+$/.test(name)) return;
        const paper = plan!.sheetSize(page.sheet - 1);
        const front = applyToPoint(invert(page.matrix), page.size.width / 2, page.size.height * 0.75);
        const isBack = page.face === 'back';
        const x = isBack && plan!.turnAxis === 'vertical' ? paper.width - front.x : front.x;
        const y = isBack && plan!.turnAxis === 'horizontal' ? paper.height - front.y : front.y;
        const { scale, size } = dummyScale(paper, 'Letter');
        const place = {
          x: (size.width - paper.width * scale) / 2 + x * scale,
          y: (size.height - paper.height * scale) / 2 + y * scale,
        };
        const near = sides[at]!.filter((word) => Math.hypot(word.x - place.x, word.y - place.y) < 12);
        expect([title, name, near.map(({ text }) => text)]).toEqual([
          title,
          name,
          expect.arrayContaining([name]),
        ]);
        seen++;
      });
    }
  }
  expect(seen).toBeGreaterThan(150);
});
