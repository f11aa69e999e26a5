import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { drawCover, drawInterior } from '../../../demo/timetable';
import { bookOf, docketOf, stepsOf } from '../../../tests/makers';
import { give, keep, make, markedPdf, platesOf, tool, type Given } from '../../../tests/outside';
import { expectPlanned, planOf } from '../../../tests/planned';
import type { Docket } from '../core/docket/docket';
import { heightOf, widthOf } from '../core/measure/box';
import { applyToPoint, compose, invert } from '../core/measure/matrix';
import { mm } from '../core/measure/unit';
import type { Book } from '../core/pages/page';
import { sidesOf } from '../core/sheets/plan';
import { PLAIN_SCHEMES, type Scheme } from '../core/sheets/scheme';

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

  test.each(SCHEMES.filter((_, n) => [0, 1, 4, 6, 9].includes(n)))(
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

test('registration marks and trim marks print on every plate (Ghostscript tiffsep)', async () => {
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
});
