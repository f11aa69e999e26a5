import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { drawCover, drawInterior } from '../../../../demo/timetable';
import { A5, bookOf, docketOf, stepsOf } from '../../../../tests/makers';
import {
  boxesOf,
  give,
  keep,
  make,
  markedPdf,
  platesOf,
  tool,
  wordsOf,
  type Given,
} from '../../../../tests/outside';
import { expectPlanned, planOf } from '../../../../tests/planned';
import type { Docket } from '../../core/docket/docket';
import { heightOf, widthOf } from '../../core/measure/box';
import { applyToPoint, compose, invert } from '../../core/measure/matrix';
import { mm } from '../../core/measure/unit';
import type { CoverPart } from '../../core/model/page';
import type { Book } from '../../core/model/page';
import { sidesOf } from '../../core/sheets/plan';
import { PLAIN_SCHEMES, type Scheme } from '../../core/sheets/schemes';

const stock = { width: mm(700), height: mm(1000) };
const marks = {
  trim: true,
  fold: true,
  centre: true,
  registration: true,
  bar: true,
};
const loose = bookOf('right', { facing: false });
const docket = (given: Given, scheme: Scheme, book: Book = bookOf('right')) =>
  docketOf(stepsOf([{ kind: 'take-in', source: given.hash, name: 'x.pdf', where: { at: 'end' } }]), {
    scheme,
    book,
  });

const { stitched, signatures, leaflet, flat, spreads, single } = PLAIN_SCHEMES;
const SCHEMES: [string, number, Scheme, Book?][] = [
  [
    'stitched, 8 pages a sheet, two copies',
    20,
    { ...stitched, stock, signature: 8, copies: { across: 2, up: 1 }, between: mm(8), marks },
  ],
  [
    'stitched, creeping by shift',
    16,
    { ...stitched, stock, creep: { by: 'shift', caliper: mm(0.1) }, marks },
  ],
  ['signatures of 16, glued', 44, { ...signatures, stock, marks }],
  [
    'signatures of 32, sewn, read from the right',
    64,
    { ...signatures, stock: { width: mm(1000), height: mm(1000) }, signature: 32, roughing: 0, marks },
    bookOf('left', { spine: 'right' }),
  ],
  [
    'signatures of 8, bound at the head',
    16,
    { ...signatures, stock, signature: 8, marks },
    bookOf('lower', { spine: 'head' }),
  ],
  ['leaflet of whole sides', 2, { ...leaflet, stock, marks }, loose],
  [
    'leaflet of panels',
    8,
    { ...leaflet, stock, pattern: { fold: 'accordion', panels: 4 }, pages: 'panels', marks },
    loose,
  ],
  ['flat, one piece repeated, work-and-turn', 2, { ...flat, stock, work: 'work-and-turn', marks }],
  ['flat, one piece repeated, work-and-tumble', 2, { ...flat, stock, work: 'work-and-tumble', marks }],
  ['flat, cut and stack, turned a quarter', 20, { ...flat, stock, arrange: 'stack', turned: 90, marks }],
  [
    'flat, in sequence, one side',
    9,
    { ...flat, stock, arrange: 'sequence', work: 'single-side', marks },
    loose,
  ],
  ['reader spreads', 8, { ...spreads, marks }],
  ['single pages', 5, { ...single, marks }],
];

describe('every scheme', () => {
  test.each(SCHEMES)(
    '%s: each page stands in its cell, head towards its head (poppler, qpdf)',
    async (_, pages, scheme, book) => {
      const given = await give(await markedPdf(pages, { bleed: mm(3) }));
      await expectPlanned(docket(given, scheme, book), given);
    },
  );

  test.each(SCHEMES)(
    '%s: each cell is its page, turned and shifted (poppler)',
    async (_name, _pages, scheme, book) => {
      const source = await give(await drawInterior());
      await expectRendered(docket(source, scheme, book), source);
    },
  );
});

/** Dots a point of the renders: a dot at 72 an inch is judged by the mean of as many squared. */
const FINE = 4;
/** A dot differs where its grey is off by more than this, of 255: small type is drawn a little otherwise when turned. */
const OFF = 96;

interface Render {
  dots: Buffer;
  width: number;
  height: number;
}
/** A part of a page in greys, as poppler renders it: from the upper left corner, in fine dots. */
async function render(
  path: string,
  page: number,
  part: { x: number; y: number; width: number; height: number },
): Promise<Render> {
  const figures = Object.entries({
    r: 72 * FINE,
    f: page,
    l: page,
    x: part.x,
    y: part.y,
    W: part.width,
    H: part.height,
  });
  const out = `${path}-${page}-${part.x}-${part.y}`;
  tool(
    'pdftoppm',
    '-gray',
    '-png',
    '-singlefile',
    ...figures.flatMap(([name, value]) => [`-${name}`, String(value)]),
    path,
    out,
  );
  const { data, info } = await sharp(`${out}.png`).greyscale().raw().toBuffer({ resolveWithObject: true });
  return { dots: data, width: info.width, height: info.height };
}

/** The mean grey around a fine dot. */
function greyAt({ dots, width, height }: Render, x: number, y: number): number {
  let sum = 0;
  for (let row = y - FINE / 2; row < y + FINE / 2; row++)
    for (let column = x - FINE / 2; column < x + FINE / 2; column++)
      sum += row < 0 || column < 0 || row >= height || column >= width ? 255 : dots[row * width + column]!;
  return sum / FINE ** 2;
}

async function expectRendered(work: Docket, source: Given): Promise<void> {
  const plan = planOf(work, source);
  const [sheets, pages] = [await make(work, { kind: 'sheets' }, source), keep(source.bytes)];
  const sides = sidesOf(plan).slice(0, 2);
  for (const [n, { drawn, size }] of sides.entries()) {
    const shown = drawn.cells.filter(({ page }) => page?.art);
    for (const cell of n ? shown.slice(-1) : shown.slice(0, 1)) {
      const { trim, page } = cell;
      const { art } = page!;
      const { media } = source.survey.pages[art!.index]!.boxes;
      const fine = (points: number) => Math.round(points * FINE);
      const corner = { x: fine(trim.x0), y: fine(size.height - trim.y1) };
      const seen = await render(sheets, n + 1, {
        ...corner,
        width: fine(widthOf(trim)),
        height: fine(heightOf(trim)),
      });
      const whole = await render(pages, art!.index + 1, {
        x: 0,
        y: 0,
        width: fine(widthOf(media)),
        height: fine(heightOf(media)),
      });
      const back = compose(invert(cell.matrix), invert(art!.place));
      let [all, differ] = [0, 0];
      for (let y = FINE; y < seen.height - FINE; y += FINE)
        for (let x = FINE; x < seen.width - FINE; x += FINE) {
          const on = applyToPoint(back, (corner.x + x) / FINE, size.height - (corner.y + y) / FINE);
          all++;
          if (Math.abs(greyAt(seen, x, y) - greyAt(whole, fine(on.x), whole.height - fine(on.y))) > OFF)
            differ++;
        }
      expect(all).toBeGreaterThan(10_000);
      expect(differ / all, `page ${cell.name} on side ${n + 1}`).toBeLessThan(0.01);
    }
  }
}

test('registration marks print on every plate, and the colour bar has a patch of every spot (Ghostscript tiffsep)', async () => {
  const source = await give(await drawCover('front'));
  const work = docket(source, { ...signatures, signature: 4, marks });
  const [front] = await platesOf(await make(work, { kind: 'sheets' }, source));
  const plan = planOf(work, source);
  const { drawn, size } = sidesOf(plan)[0]!;
  const circles = drawn.marks!.flatMap((item) => (item.kind === 'circle' ? [item] : []));
  expect(circles).toHaveLength(4);
  const SCALE = 2;
  const width = Math.round(size.width * SCALE);
  expect([...front!.keys()]).toEqual(
    expect.arrayContaining(['Cyan', 'Magenta', 'Yellow', 'Black', 'Larkmoor Green']),
  );
  for (const [ink, plate] of front!)
    for (const { x, y } of circles) {
      // The cross of the mark: dark somewhere around its middle. A dot has several bytes, all alike.
      const line = plate.length / Math.round(size.height * SCALE);
      const near = [-1, 0, 1].flatMap((dx) =>
        [-1, 0, 1].map((dy) => {
          const row = Math.round((size.height - y) * SCALE) + dy;
          return plate[row * line + (Math.round(x * SCALE) + dx) * (line / width)]!;
        }),
      );
      expect(Math.min(...near), ink).toBeLessThan(200);
    }
  const patches = drawn.marks!.flatMap((item) =>
    item.kind === 'rect' && item.ink !== 'all' && item.ink.as === 'spot' ? [item] : [],
  );
  const spot = front!.get('Larkmoor Green')!;
  const dots = patches.map(({ box: { x0, x1, y0, y1 } }) => {
    const row = Math.round((size.height - (y0 + y1) / 2) * SCALE);
    const line = spot.length / Math.round(size.height * SCALE);
    return spot[row * line + Math.round(((x0 + x1) / 2) * SCALE) * (line / width)]!;
  });
  // Solid is 0, half a tint about 127.
  expect(dots[0]).toBe(0);
  expect(Math.abs(dots[1]! - 127)).toBeLessThan(3);
  expect(dots).toHaveLength(2);
});

test('the cover of a bound book: pages in their parts, the text in the middle of its spine, its sheet as large as its paper', async () => {
  const book = await give(await markedPdf(40));
  const parts: CoverPart[] = ['front', 'inside-front', 'inside-back', 'back'];
  const sheet = { width: mm(450), height: mm(320) };
  const text = 'Moorland';
  const scheme: Scheme = {
    ...signatures,
    stock: { ...stock, caliper: mm(0.5) },
    cover: { stock: sheet, added: 0, runs: 'down', text, textSize: 12 },
  };
  const plain = docket(book, scheme);
  const work: Docket = {
    ...plain,
    steps: [...plain.steps, { id: 'c', kind: 'cover', pages: '1-2, 39-40', parts }],
  };
  const path = await make(work, { kind: 'sheets' }, book);
  tool('qpdf', '--check', path);
  const [outside, inside] = wordsOf(path).slice(-2);
  const at = (words: typeof outside, word: string) => words!.find((each) => each.text === word)!;
  // 18 leaves of 0.5 mm. The spine stands in the middle of the sheet, and so does its text.
  const spine = 18 * 0.5;
  const [x, y] = [sheet.width / 2, sheet.height / 2];
  // pdftotext gives the middle of a line as its face has it, a little off the middle of its capitals.
  expect(Math.abs(at(outside, text).x - x)).toBeLessThan(2);
  expect(Math.abs(at(outside, text).y - y)).toBeLessThan(0.5);
  const middle = mm(spine / 2) + A5.width / 2;
  expect(at(outside, 'P40').x).toBeCloseTo(x - middle, 0);
  expect(at(outside, 'P1').x).toBeCloseTo(x + middle, 0);
  expect(at(inside, 'P2').x).toBeCloseTo(x - middle, 0);
  expect(at(inside, 'P39').x).toBeCloseTo(x + middle, 0);
  expect(boxesOf(path).at(-1)!.MediaBox).toEqual(
    [0, 0, sheet.width, sheet.height].map((side) => expect.closeTo(side, 1)),
  );
});

test('paths for tools are on layers that are off: nothing of them is drawn or printed', async () => {
  const given = await give(await markedPdf(6));
  const leaflets = docket(
    given,
    { ...leaflet, pages: 'panels', stock, marks: { trim: true, fold: true, paths: true } },
    loose,
  );
  const path = await make(leaflets, { kind: 'sheets' }, given);
  tool('qpdf', '--check', path);
  const { qpdf } = JSON.parse(tool('qpdf', '--json', path)) as {
    qpdf: [unknown, Record<string, { value?: Record<string, unknown> }>];
  };
  const values = Object.entries(qpdf[1]).flatMap(([key, { value }]) =>
    value ? [[key.replace('obj:', ''), value] as const] : [],
  );
  const layers = new Map(
    values
      .filter(([, value]) => value['/Type'] === '/OCG')
      .map(([key, value]) => [String(value['/Name']).replace('u:', ''), { key, value }]),
  );
  const catalog = values.find(([, value]) => value['/Type'] === '/Catalog')![1];
  const { '/ON': on, '/OFF': off } = (catalog['/OCProperties'] as Record<string, Record<string, string[]>>)[
    '/D'
  ]!;
  const keys = (...names: string[]) => names.map((name) => layers.get(name)!.key);
  expect(off).toEqual(keys('Cut paths', 'Fold paths'));
  expect(on!.toSorted()).toEqual(keys('Marks', 'Fold marks').toSorted());
  // ISO 19593-1, from memory.
  expect(layers.get('Cut paths')!.value['/GTS_Metadata']).toMatchObject({
    '/GTS_ProcStepsType': expect.stringContaining('Cutting'),
  });
  expect(layers.get('Fold paths')!.value['/GTS_Metadata']).toMatchObject({
    '/GTS_ProcStepsType': expect.stringContaining('Creasing'),
  });
  // With no mark in all inks besides, the plates of the tools' inks are white.
  const bare = docket(
    given,
    { ...leaflet, pages: 'panels', stock, marks: { trim: false, fold: false, paths: true } },
    loose,
  );
  const [front] = await platesOf(await make(bare, { kind: 'sheets' }, given));
  expect(front!.get('Black')!.some((dot) => dot < 128)).toBe(true);
  for (const ink of ['Cutting', 'Creasing'])
    expect(front!.get(ink)?.some((dot) => dot < 255) ?? false, ink).toBe(false);
});
