import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import fc from 'fast-check';
import sharp from 'sharp';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative, resolve } from 'node:path';
import { beforeAll, describe, expect, test } from 'vitest';
import { demoJobs } from '../../../tests/demoJobs';
import { docketOf, bookOf, takeInStep } from '../../../tests/makers';
import { give, make, markedPdf, type Given } from '../../../tests/outside';
import { drafts, jobOf } from '../../../tests/randomJobs';
import { workOut, type WorkedOut } from '../core/checks';
import type { Step } from '../core/docket/steps';
import { finishPlanOf } from '../core/finish/finishPlan';
import type { OnDoing } from '../core/handover/doing';
import type { Output } from '../core/handover/outputs';
import { holds, type Proof, type Verdict } from '../core/finish/proof';
import { mm } from '../core/measure/unit';
import type { ByHand } from '../core/sheets/pressTerms';
import { PLAIN_COVER } from '../core/sheets/scheme';
import { PLAIN_SCHEMES, type Scheme } from '../core/sheets/schemes';
import { handOver } from './handOver';
import { prove } from '../standins/finishing/prove';
import { proveSheets } from './prove';

const AT = new Date('2026-01-05T09:00:00Z');
const folderOf = () => mkdtempSync(join(tmpdir(), 'folder-proof-'));

/** Proves sheets that were written of `printed` as those of `job`. */
async function proof(
  job: WorkedOut,
  given: Given,
  printed = job,
  more: Parameters<typeof proveSheets>[3] = {},
): Promise<Proof> {
  const sheets = readFileSync(await make(printed.docket, { kind: 'sheets' }, given));
  const read = () => Promise.resolve(given.bytes);
  return proveSheets(job, sheets, { surveys: job.surveys, read, folder: folderOf(), at: AT }, more);
}
/** What is not as it should be, by the pages. */
const wrong = ({ pages }: Proof): [page: number, is: Verdict['is']][] =>
  pages.flatMap(({ page, verdict }) =>
    verdict.is === 'same' ? [] : [[page, verdict.is] as [number, Verdict['is']]],
  );

const given = new Map<string, Given>();
/** Pages of A5 with bleed as they are seen, however they lie in their file. */
const marked = async (pages: number, rotate = 0, userUnit = 1): Promise<Given> => {
  const key = `${pages} ${rotate} ${userUnit}`;
  const [width, height, bleed] = [mm(148), mm(210), mm(3)].map((length) => length / userUnit);
  const sides = rotate % 180 ? { width: height!, height: width! } : { width: width!, height: height! };
  const file = () =>
    markedPdf(pages, { ...sides, rotate, bleed: bleed!, ...(userUnit === 1 ? {} : { userUnit }) });
  const known = given.get(key) ?? (await give(await file()));
  given.set(key, known);
  return known;
};

test('whatever is planned and right, its proof holds', async () => {
  let [proved, pages] = [0, 0];
  const small = drafts.map((draft) => ({
    ...draft,
    pages: 1 + (draft.pages % 16),
    small: undefined,
    facing: draft.facing || draft.scheme.kind !== 'flat',
    spine: draft.panels.length && draft.spine === 'head' ? ('left' as const) : draft.spine,
    scheme: (draft.scheme.kind !== 'none' && 'stock' in draft.scheme
      ? {
          ...draft.scheme,
          stock: { width: mm(700), height: mm(1000) },
          copies: undefined,
          // Blanks before the last page would part it from a narrower leaf with a fold-out, which leaves white beside it.
          ...('pad' in draft.scheme ? { pad: 'end' } : {}),
        }
      : draft.scheme) as Scheme,
  }));
  await fc.assert(
    fc.asyncProperty(
      small,
      fc.constantFrom(0, 0, 90, 180, 270),
      fc.constantFrom(1, 1, 2),
      async (draft, rotate, unit) => {
        const file = await marked(draft.pages, rotate, unit);
        const job = jobOf(draft, true, file);
        const isSheets = ['stitched', 'signatures', 'leaflet', 'flat'].includes(draft.scheme.kind);
        if (!isSheets || job.findings.some(({ level }) => level === 'stop')) return;
        const found = await proof(job, file);
        expect([wrong(found), found.joined]).toEqual([[], []]);
        expect(holds(found)).toBe(true);
        proved++;
        pages += found.pages.length;
      },
    ),
    { numRuns: Number(process.env.PROOF_RUNS ?? 30) },
  );
  expect(proved).toBeGreaterThan(3);
  expect(pages).toBeGreaterThan(20);
});

test.each([
  [424, 86],
  [100.3, 77.7],
  [297.6, 419.5],
])(
  'blanks beside a page that is printed to its edges are blank, and what strays onto them shows: %d × %d pt',
  async (width, height) => {
    const document = await PDFDocument.create();
    document.addPage([width, height]).drawRectangle({ width, height, color: rgb(0.1, 0.2, 0.6) });
    const file = await give(await document.save());
    const job = workOut(
      docketOf([{ ...takeInStep('a'), source: file.hash } as Step], {
        scheme: { ...PLAIN_SCHEMES.stitched, stock: { width: mm(450), height: mm(320) } } as Scheme,
      }),
      { [file.hash]: file.survey },
    );
    expect(wrong(await proof(job, file))).toEqual([]);
    // 1 mm of it beyond the fold, which is in the middle of the sheet.
    const sheets = await PDFDocument.load(readFileSync(await make(job.docket, { kind: 'sheets' }, file)));
    const [front] = sheets.getPages();
    const middle = front!.getWidth() / 2;
    front!.drawRectangle({ x: middle - mm(1), y: 0, width: mm(1), height: front!.getHeight() });
    const read = () => Promise.resolve(file.bytes);
    const kept = { surveys: job.surveys, read, folder: folderOf(), at: AT };
    expect(wrong(await proveSheets(job, await sheets.save(), kept)).map(([page]) => page)).toEqual([3]);
  },
);

describe('a booklet', () => {
  const PAGES = 16;
  let file: Given;
  beforeAll(async () => {
    file = await marked(PAGES);
  });
  const booklet = (more: object = {}, steps: Step[] = []): WorkedOut =>
    workOut(
      docketOf([{ ...takeInStep('a'), source: file.hash } as Step, ...steps], {
        book: bookOf('right'),
        scheme: {
          ...PLAIN_SCHEMES.stitched,
          stock: { width: mm(640), height: mm(450) },
          signature: 8,
          cutOff: mm(3),
          ...more,
        } as Scheme,
      }),
      { [file.hash]: file.survey },
    );

  // Front of sheet 1: its cells by the plan, row by row; what each page is and what becomes of it is worked out by hand.
  test.each<[ByHand, (cells: number[]) => [number, Verdict['is']][]]>([
    [{ do: 'turn', at: { sheet: 1, side: 'front', cell: 1 } }, ([a]) => [[a!, 'turned']]],
    [{ do: 'leave-out', at: { sheet: 1, side: 'front', cell: 3 } }, ([, , c]) => [[c!, 'missing']]],
    [
      {
        do: 'swap',
        at: { sheet: 1, side: 'front', cell: 2 },
        with: { sheet: 1, side: 'front', cell: 3 },
      },
      ([, b, c]) => [
        [b!, 'other'],
        [c!, 'other'],
      ],
    ],
    // Two that lie head to head on the sheet.
    [
      {
        do: 'swap',
        at: { sheet: 1, side: 'front', cell: 3 },
        with: { sheet: 1, side: 'front', cell: 1 },
      },
      ([a, , c]) => [
        [a!, 'other'],
        [c!, 'other'],
      ],
    ],
  ])('%j: its pages are named, and no others', async (change, expected) => {
    const job = booklet({ byHand: [change] });
    const cells = booklet().plan!.sheets[0]!.front.cells.map(({ position }) => position - 1);
    const found = await proof(job, file);
    expect(wrong(found)).toEqual(expected(cells).sort(([a], [b]) => a - b));
    for (const { verdict, sheet, face } of found.pages.filter((each) => each.verdict.is !== 'same')) {
      expect([sheet, face]).toEqual([1, 'front']);
      // The other of two that were swapped is met.
      if (verdict.is === 'other') expect(cells).toContain(verdict.page);
    }
  });

  test('moved by a millimetre: every page says by how much, and where to', async () => {
    const found = await proof(booklet(), file, booklet({ gap: mm(2) }), { ppi: 150 });
    expect(found.pages).toHaveLength(PAGES);
    for (const { verdict, page } of found.pages) {
      if (verdict.is !== 'shifted') throw new Error(`${page} is ${verdict.is}`);
      // Away from the spine: to the right on a right-hand page.
      expect(verdict.by.x / mm(1)).toBeCloseTo(page % 2 ? -1 : 1, 1);
      expect(verdict.by.y / mm(1)).toBeCloseTo(0, 1);
    }
  });

  test('a file with a side too many or too few, and a line that gives nothing, do not hold', async () => {
    const job = booklet();
    expect(holds(await proof(job, file))).toBe(true);
    // Sixteen pages more on sheets of their own, the first ones alike.
    const more = await proof(job, file, booklet({ signature: 4 }));
    expect([more.sides, holds(more)]).toEqual([{ given: 8, planned: 4 }, false]);
    const few = await proof(booklet({ signature: 4 }), file, job);
    expect([few.sides, holds(few)]).toEqual([{ given: 4, planned: 8 }, false]);
    const { list, plan, docket } = job;
    const finish = finishPlanOf({ list, plan: plan!, scheme: docket.scheme }, '');
    const nothing = await prove({
      sides: [],
      finish: { ...finish, operations: finish.operations.filter(({ kind }) => kind === 'count') },
      wanted: () => [undefined],
      ppi: 72,
    });
    expect(nothing.pages.map(({ verdict }) => verdict.is)).toEqual(['absent']);
    expect([holds(nothing), holds({ ...nothing, pages: [] })]).toEqual([false, false]);
  });

  test('printed turned about the other edge: every page of a back is wrong', async () => {
    const other = booklet({ turn: 'long-edge' });
    const found = await proof(booklet(), file, other);
    const backs = found.pages.filter(({ face }) => face === 'back');
    expect(backs).toHaveLength(8);
    expect(wrong(found)).toHaveLength(8);
    for (const { verdict } of backs) expect(['turned', 'other']).toContain(verdict.is);
  });

  test('a page of another job, and one printed on where there should be none', async () => {
    const blanks = booklet({}, [{ id: 'r', kind: 'remove', pages: '16' }]);
    const found = await proof(blanks, file, booklet());
    // Pages 15 and 16 are the blank that fills the sheet and the last page, which is kept at the back.
    expect(wrong(found)).toEqual([
      [14, 'other'],
      [15, 'different'],
    ]);
  });
});

test('pages full of text hold wherever they stand on the sheet, and one letter that is another one is found', async () => {
  const lines = async (altered: boolean) => {
    const document = await PDFDocument.create();
    for (let n = 1; n <= 8; n++) {
      const page = document.addPage([419.53, 595.28]);
      for (let line = 0; line < 48; line++) {
        const text = `${n * 7919 + line * 104729} some lines of a page that is full, number ${line} of ${n}`;
        page.drawText(altered && n === 3 && line === 20 ? text.replace('full', 'foll') : text, {
          x: 40.3,
          y: 560.7 - line * 11.13,
          size: 9,
        });
      }
    }
    return document.save();
  };
  const [right, altered] = [await give(await lines(false)), await give(await lines(true))];
  const read = () => Promise.resolve(right.bytes);
  for (const more of [0, 0.37, 1.01]) {
    const sheets = {
      ...PLAIN_SCHEMES.stitched,
      stock: { width: mm(640) + more, height: mm(450) + more },
    } as Scheme;
    const job = ({ hash, survey }: Given) =>
      workOut(
        docketOf([{ ...takeInStep('a'), source: hash } as Step], { book: bookOf('right'), scheme: sheets }),
        { [hash]: survey },
      );
    for (const [printed, expected] of [
      [right, []],
      [altered, [[2, 'different']]],
    ] as const) {
      const file = readFileSync(await make(job(printed).docket, { kind: 'sheets' }, printed));
      const task = { surveys: { [right.hash]: right.survey }, read, folder: folderOf(), at: AT };
      expect(wrong(await proveSheets(job(right), file, task)), `${more}`).toEqual(expected);
    }
  }
});

describe('sheets that are proved before they go out', () => {
  const swapped: ByHand = {
    do: 'swap',
    at: { sheet: 1, side: 'front', cell: 1 },
    with: { sheet: 1, side: 'front', cell: 2 },
  };
  const said: string[] = [];
  const out = async (hand: readonly ByHand[], prove: boolean, more: object = {}) => {
    const file = await marked(8);
    const docket = docketOf([{ ...takeInStep('a'), source: file.hash } as Step], {
      book: bookOf('right'),
      scheme: {
        ...PLAIN_SCHEMES.stitched,
        stock: { width: mm(640), height: mm(450) },
        byHand: [...hand],
      } as Scheme,
      prove,
    });
    const read = () => Promise.resolve(file.bytes);
    const onProgress: OnDoing = (done, total, doing = 'writing') =>
      void said.push(`${doing} ${done} of ${total}`);
    const job = { surveys: { [file.hash]: file.survey }, read, folder: folderOf(), at: AT, onProgress };
    return handOver(docket, { kind: 'sheets', ...more } as Output, {
      ...job,
      ...('despite' in more ? { despite: 'so' } : {}),
    });
  };

  test('right ones go, and say so; in several files they are proved whole', async () => {
    for (const more of [{}, { split: { by: 'faces' } }]) {
      const made = await out([], true, more);
      expect(made.map(({ proof }) => [proof?.holds, proof?.pages, proof?.named])).toEqual(
        made.map(() => [true, 8, []]),
      );
    }
    expect(said).toEqual(expect.arrayContaining(['writing 4 of 4', 'proving 0 of 0', 'proving 2 of 2']));
  });

  test('wrong ones are held back with the first page that is wrong; with a reason they go, and still say it, in pictures', async () => {
    await expect(out([swapped], true)).rejects.toMatchObject({
      trouble: {
        code: 'proof-fails',
        data: { wrong: 2, pages: 8, first: expect.stringContaining('is met in its place') },
      },
    });
    const [made] = await out([swapped], true, { despite: true });
    const { holds: isRight, wrong: many, named } = made!.proof!;
    expect([isRight, many, named.map(({ sheet, face }) => [sheet, face])]).toEqual([
      false,
      2,
      [
        [1, 'front'],
        [1, 'front'],
      ],
    ]);
    // Three pictures side by side; what came out is not what was intended, and where it differs there is colour.
    const png = Buffer.from(named[0]!.picture!.split(',')[1]!, 'base64');
    const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const colours = (from: number, to: number) => {
      let found = 0;
      for (let y = 0; y < info.height; y++)
        for (let x = Math.round(from * info.width); x < to * info.width; x++) {
          const at = (y * info.width + x) * info.channels;
          if (data[at]! - data[at + 2]! > 60) found++;
        }
      return found;
    };
    expect([colours(0, 0.66), colours(0.68, 1) > 4]).toEqual([0, true]);
  });

  test('where the job does not ask for it none is made', async () => {
    const made = await out([swapped], false);
    expect(made.map(({ proof }) => proof)).toEqual([undefined]);
  });
});

test('a fold-out whose fold lies where the knife goes is cut off, and is said to be', async () => {
  const file = await marked(10);
  const job = (width: number): WorkedOut => {
    const leaf = { kind: 'trim', pages: '3-4', width, height: mm(210), content: 'hold' };
    return workOut(
      docketOf(
        [
          { ...takeInStep('a'), source: file.hash },
          { ...leaf, id: 'w', fixed: { x: 'spine', y: 'centre' } },
          {
            id: 'p',
            kind: 'panel',
            pages: '3',
            count: 1,
            show: '9-10',
            allowance: mm(2),
            width: mm(130),
            folds: 'back',
          },
        ] as Step[],
        {
          book: bookOf('right'),
          scheme: { ...PLAIN_SCHEMES.stitched, stock: { width: mm(640), height: mm(450) } },
        },
      ),
      { [file.hash]: file.survey },
    );
  };
  for (const [width, cutOff] of [
    [mm(148), [{ product: 1, copy: 1, leaf: 1 }]],
    [mm(142), []],
  ] as const) {
    const found = await proof(job(width), file);
    expect([width, found.cutOff]).toEqual([width, cutOff]);
    expect(holds(found)).toBe(!cutOff.length);
  }
});

// Sum: the n-th leaf lies inside n others, each 0.1 mm thick; measured to 0.05 mm at 150 dots an inch.
test('leaves that thick paper pushes out by less than machines err are right, and where they lie is told', async () => {
  const file = await marked(32);
  const docket = docketOf([{ ...takeInStep('a'), source: file.hash } as Step], {
    book: bookOf('right'),
    scheme: {
      ...PLAIN_SCHEMES.signatures,
      signature: 16,
      stock: { width: mm(640), height: mm(900), caliper: mm(0.25) },
    } as Scheme,
  });
  const { pages } = await proof(workOut(docket, { [file.hash]: file.survey }), file);
  expect(wrong({ pages } as Proof)).toEqual([]);
  // The leaves of 16 pages: the fourth and the fifth lie inside three others, 3 × 0.25 mm further out than the first.
  const off = pages
    .slice(0, 16)
    .map(({ verdict }) => (verdict.is === 'same' ? Math.abs(verdict.by.x) / mm(1) : NaN));
  for (const [page, out] of [
    [0, 0],
    [6, 0.75],
    [9, 0.75],
  ] as const)
    expect(off[page]).toBeCloseTo(out, 1);
});

test('a cover of a front and a back, with words on its spine that no page has, holds; without its words it does not', async () => {
  const file = await marked(34);
  const cover = { id: 'c', kind: 'cover', pages: '1, last', parts: ['front', 'back'] } as Step;
  const job = (text?: string) =>
    workOut(
      docketOf([{ ...takeInStep('a'), source: file.hash } as Step, cover], {
        book: bookOf('right'),
        scheme: {
          ...PLAIN_SCHEMES.signatures,
          stock: { width: mm(640), height: mm(900), caliper: mm(0.25) },
          cover: { ...PLAIN_COVER, ...(text ? { text } : {}) },
        } as Scheme,
      }),
      { [file.hash]: file.survey },
    );
  const pagesOf = async (printed: WorkedOut) => (await proof(job('Moor'), file, printed)).pages;
  const right = await pagesOf(job('Moor'));
  expect([right.length, wrong({ pages: right } as Proof)]).toEqual([38, []]);
  const white = (await pagesOf(job())).filter(({ verdict }) => verdict.is !== 'same');
  expect(white.map(({ at, verdict }) => [at, verdict.is])).toEqual([
    [{ cover: 'spine', face: 'front' }, 'missing'],
  ]);
});

test('creep is measured', async () => {
  const file = await marked(48);
  const job = workOut(
    docketOf([{ ...takeInStep('a'), source: file.hash } as Step], {
      book: bookOf('right'),
      scheme: { ...PLAIN_SCHEMES.stitched, stock: { width: mm(450), height: mm(320), caliper: mm(0.1) } },
    }),
    { [file.hash]: file.survey },
  );
  const found = await proof(job, file, job, { ppi: 150 });
  expect(found.pages).toHaveLength(48);
  for (const { verdict, page } of found.pages) {
    const leaf = Math.min(Math.floor(page / 2), 23 - Math.floor(page / 2));
    // So far it is moved towards the fore edge, and so much of it is cut off there.
    const off =
      verdict.is === 'same'
        ? page % 2
          ? -verdict.by.x
          : verdict.by.x
        : verdict.is === 'cut'
          ? page % 2
            ? verdict.by.left
            : verdict.by.right
          : NaN;
    expect(Math.abs(off / mm(1) - 0.1 * leaf)).toBeLessThan(0.05);
    // It is right as long as it is no more than machines err by, 1 mm.
    if (leaf !== 10) expect(verdict.is).toBe(leaf > 10 ? 'cut' : 'same');
  }
});

/** A PDF of pages of 100 × 150 mm, each ground in grey up to its bleed, with a bar of black so far inside its edges. */
async function groundPdf(
  pages: readonly { bleed: number; inside: number; ground: boolean }[],
): Promise<Uint8Array> {
  const document = await PDFDocument.create({ updateMetadata: false });
  const [width, height, most] = [mm(100), mm(150), mm(3)];
  for (const { bleed, inside, ground } of pages) {
    const page = document.addPage([width + 2 * most, height + 2 * most]);
    page.setBleedBox(0, 0, width + 2 * most, height + 2 * most);
    page.setTrimBox(most, most, width, height);
    if (ground)
      page.drawRectangle({
        x: most - bleed,
        y: most - bleed,
        width: width + 2 * bleed,
        height: height + 2 * bleed,
        color: rgb(0.7, 0.8, 0.9),
      });
    page.drawRectangle({
      x: most + inside,
      y: most + inside,
      width: width - 2 * inside,
      height: height - 2 * inside,
      color: rgb(0, 0, 0),
    });
  }
  return document.save({ useObjectStreams: false });
}

// Sums: the bleed that was drawn is what stands outside the trim, the distance of the bar what stands inside.
test('edges stand as much error outwards as they have bleed, and inwards as what is read stands off, to 0.1 mm', async () => {
  const drawn = [
    { bleed: mm(3), inside: mm(5), ground: true },
    { bleed: 0, inside: mm(5), ground: true },
    { bleed: mm(1.3), inside: mm(2.4), ground: true },
    { bleed: 0, inside: mm(4.1), ground: false },
  ];
  const file = await give(await groundPdf(drawn));
  const steps = [{ ...takeInStep('a'), source: file.hash } as Step];
  const scheme = {
    ...PLAIN_SCHEMES.flat,
    stock: { width: mm(450), height: mm(640) },
    arrange: 'sequence',
  } as Scheme;
  const book = bookOf('right', { facing: false });
  const job = workOut(docketOf(steps, { book, scheme }), { [file.hash]: file.survey });
  const { edges = [], pages } = await proof(job, file, job, { withEdges: true });
  // Four pages, each with a back that is not printed.
  expect(pages).toHaveLength(8);
  expect(edges).toHaveLength(16);
  for (const { page, edge, white, cut } of edges) {
    const { bleed, inside, ground } = drawn[page / 2]!;
    expect(Math.abs(cut! - inside) / mm(1), `${page} ${edge}`).toBeLessThan(0.1);
    if (ground) expect(Math.abs(white! - bleed) / mm(1), `${page} ${edge}`).toBeLessThan(0.1);
    else expect(white).toBeUndefined();
  }
  // The weakest come first.
  expect(edges.slice(0, 4).map(({ page }) => page)).toEqual([2, 2, 2, 2]);
});

test('of the demo jobs what is wrong is found, and nothing else: larger pages of the handbook are cut, the cell turned by hand is turned', async () => {
  const found: Record<string, unknown> = {};
  for (const { docket, surveys, read } of await demoJobs()) {
    const work = workOut(docket, surveys);
    if (work.findings.some(({ code }) => code === 'panel-too-wide')) continue;
    const folder = folderOf();
    const unproved = { ...docket, prove: false };
    const [made] = await handOver(unproved, { kind: 'sheets' }, { surveys, read, folder, at: AT });
    const sheets = readFileSync(join(folder, made!.file));
    found[docket.title] = wrong(await proveSheets(work, sheets, { surveys, read, folder, at: AT }));
  }
  expect(found).toEqual({
    // By practice the front of a 16-page signature has 5, 12, 9, 8 over 4, 13, 16, 1: the third cell of the second one is page 25.
    'Handbook with a turned cell': [[24, 'turned']],
    'Gala day leaflet': [],
    'Open weekend gate folder': [],
    'Station stationery': [],
    'Platform tickets': [],
    'Footplate handbook': [
      [26, 'cut'],
      [49, 'cut'],
      [82, 'cut'],
      [110, 'cut'],
    ],
    'Season timetable': [],
  });
});

test('the finishing line and the proof read nothing of where pages lie on sheets', () => {
  const root = resolve(import.meta.dirname, '../../..');
  const seen = new Set<string>();
  const walk = (file: string): void => {
    if (seen.has(file)) return;
    seen.add(file);
    for (const [, to] of readFileSync(join(root, file), 'utf8').matchAll(/from '(\.[^']+)'/g)) {
      const path = relative(root, resolve(root, dirname(file), to!));
      walk(`${path}.ts`);
    }
  };
  walk('src/lib/standins/finishing/prove.ts');
  walk('src/lib/core/finish/line/runLine.ts');
  expect(seen.size).toBeGreaterThan(12);
  // Names of work styles and no more.
  expect([...seen].filter((file) => file.includes('/sheets/'))).toEqual([
    'src/lib/core/sheets/pressTerms.ts',
  ]);
  expect([...seen].filter((file) => /\/(docket|pages|numbers|checks|pdf|make)\//.test(file))).toEqual([]);
});
