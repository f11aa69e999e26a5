import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import { expect, test, type Page } from '@playwright/test';
import sharp from 'sharp';
import { workOut, type WorkedOut } from '../src/lib/core/checks';
import { sourcesOf } from '../src/lib/core/docket/docket';
import { contains, type Box } from '../src/lib/core/measure/box';
import { applyToBox, applyToPoint, compose, type Matrix } from '../src/lib/core/measure/matrix';
import { mm } from '../src/lib/core/measure/unit';
import type { Survey } from '../src/lib/core/model/survey';
import { keep, tool, wordsOf } from '../tests/outside';
import { field, go, makeOutput, newJob, pdf, saved, slip, step, takeIn } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill('SIGTERM'));

const [WIDTH, HEIGHT, MARK] = [mm(105), mm(148), mm(22)];
/** What marks a corner of every page, seen upright; light takes a little of it away. */
const CORNERS = {
  'upper left': { at: [mm(6), HEIGHT - mm(6) - MARK], color: [0.9, 0, 0] },
  'upper right': { at: [WIDTH - mm(6) - MARK, HEIGHT - mm(6) - MARK], color: [0, 0.75, 0] },
  'lower left': { at: [mm(6), mm(6)], color: [0, 0, 0.9] },
  'lower right': { at: [WIDTH - mm(6) - MARK, mm(6)], color: [0.9, 0.8, 0] },
} as const;
const BITS = 5;
const bitAt = (n: number) => [mm(12) + n * mm(17), HEIGHT / 2 - mm(7)] as const;
const BIT = mm(14);

/** Pages that are known by bars in their middle, black for one and grey for nought, and by the colours of their corners. */
async function colouredPdf(pages: number): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  for (let n = 1; n <= pages; n++) {
    const page = doc.addPage([WIDTH, HEIGHT]);
    for (const { at, color } of Object.values(CORNERS))
      page.drawRectangle({
        x: at[0],
        y: at[1],
        width: MARK,
        height: MARK,
        color: rgb(color[0], color[1], color[2]),
      });
    for (let bit = 0; bit < BITS; bit++) {
      const [x, y] = bitAt(bit);
      const shade = n & (1 << bit) ? 0 : 0.6;
      page.drawRectangle({ x, y, width: BIT, height: BIT, color: rgb(shade, shade, shade) });
    }
  }
  return doc.save();
}

/** The job as it stands, worked out here from what the server tells. */
async function worked(page: Page): Promise<WorkedOut> {
  const id = /jobs\/([^/]+)/.exec(page.url())![1]!;
  const { docket } = await (await page.request.get(`${folder.url}/api/jobs/${id}`)).json();
  const surveys: Record<string, Survey> = {};
  for (const source of sourcesOf(docket))
    surveys[source] = await (await page.request.get(`${folder.url}/api/sources/${source}/survey`)).json();
  return workOut(docket, surveys);
}

interface Quad {
  sheet: number;
  face: 'front' | 'back';
  here: boolean;
  pages: string[];
  flat: Box;
  corners: { x: number; y: number }[];
}
/** The faces with pictures as the dummy says that they are on the screen. */
const quads = (page: Page): Promise<Quad[]> =>
  page
    .getByRole('list', { name: 'In sight' })
    .locator('li')
    .evaluateAll((all) =>
      all.map((each) => {
        const { sheet, face, here, pages, flat, corners } = (each as HTMLElement).dataset;
        const [x0, y0, x1, y1] = flat!.split(' ').map(Number) as [number, number, number, number];
        return {
          sheet: Number(sheet),
          face: face as 'front' | 'back',
          here: here === 'true',
          pages: pages!.split(' ').filter(Boolean),
          flat: { x0, y0, x1, y1 },
          corners: corners!.split(' ').map((pair) => {
            const [x, y] = pair.split(',').map(Number);
            return { x: x!, y: y! };
          }),
        };
      }),
    );

/** Where a point of a square from (0, 0) to (1, 1) is on a picture of it with those corners, seen from anywhere (by the rules of perspective). */
function onQuad([a, b, c, d]: Quad['corners'], u: number, v: number): { x: number; y: number } {
  const [dx1, dx2, sx] = [b!.x - c!.x, d!.x - c!.x, a!.x - b!.x + c!.x - d!.x];
  const [dy1, dy2, sy] = [b!.y - c!.y, d!.y - c!.y, a!.y - b!.y + c!.y - d!.y];
  const det = dx1 * dy2 - dx2 * dy1;
  const [g, h] = [(sx * dy2 - dx2 * sy) / det, (dx1 * sy - sx * dy1) / det];
  const w = g * u + h * v + 1;
  return {
    x: ((b!.x - a!.x + g * b!.x) * u + (d!.x - a!.x + h * d!.x) * v + a!.x) / w,
    y: ((b!.y - a!.y + g * b!.y) * u + (d!.y - a!.y + h * d!.y) * v + a!.y) / w,
  };
}

type Color = readonly number[];
const isLike = (seen: Color, color: Color): boolean => {
  const [most, wanted] = [Math.max(...seen), Math.max(...color)];
  return most > 70 && seen.every((each, n) => Math.abs(each / most - color[n]! / wanted) < 0.3);
};

/**
 * What is wrong with the pages in sight: each is looked for where the plan printed it on its sheet, and where the dummy says that
 * this part of the sheet is on the screen. Pages that are met as they should be are counted.
 */
async function wrongInSight(page: Page, { plan }: WorkedOut): Promise<{ wrong: string[]; met: Set<string> }> {
  const canvas = page.locator('canvas[data-dimensions]');
  const png = await canvas.screenshot();
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const seenAt = ({ x, y }: { x: number; y: number }): Color => {
    const at = (Math.round(y) * info.width + Math.round(x)) * 3;
    return [...data.subarray(at, at + 3)];
  };
  const wrong: string[] = [];
  const met = new Set<string>();
  for (const { sheet, face, here, flat, corners } of await quads(page)) {
    if (!here) continue;
    const laid = plan!.sheets[sheet - 1]!;
    const { width, height } = laid.size;
    const through: Matrix =
      face === 'front'
        ? [1, 0, 0, 1, 0, 0]
        : plan!.turnAxis === 'vertical'
          ? [-1, 0, 0, 1, width, 0]
          : [1, 0, 0, -1, 0, height];
    for (const cell of laid[face]?.cells ?? []) {
      if (!cell.page || !contains(flat, applyToBox(through, cell.trim), mm(2))) continue;
      const way = compose(cell.matrix, through);
      const on = (x: number, y: number) => {
        const at = applyToPoint(way, x, y);
        return onQuad(
          corners,
          (at.x - flat.x0) / (flat.x1 - flat.x0),
          (at.y - flat.y0) / (flat.y1 - flat.y0),
        );
      };
      for (const [name, { at, color }] of Object.entries(CORNERS)) {
        const seen = seenAt(on(at[0] + MARK / 2, at[1] + MARK / 2));
        if (!isLike(seen, color)) wrong.push(`page ${cell.name}, ${name}: ${seen.join()}`);
      }
      const read = Array.from({ length: BITS }, (_, bit) => {
        const [x, y] = bitAt(bit);
        return Math.max(...seenAt(on(x + BIT / 2, y + BIT / 2))) < 60 ? 1 << bit : 0;
      }).reduce((sum, each) => sum + each, 0);
      if (`${read}` !== cell.name) wrong.push(`page ${cell.name} reads ${read}`);
      met.add(cell.name);
    }
  }
  return { wrong, met };
}

/** Waits until what is done is done. */
const still = (page: Page, place: number) =>
  expect(page.getByRole('list', { name: 'In sight' })).toHaveAttribute('data-rests', `${place}`);

async function jobOfColours(page: Page, pages: number, scheme: string): Promise<WorkedOut> {
  await newJob(page, folder.url);
  await takeIn(page, pdf('pages.pdf', await colouredPdf(pages)));
  await expect(step(page, 1)).toContainText('pages.pdf');
  await go(page, 'Sheets');
  await field(page, 'The pages become').selectOption(scheme);
  await saved(page);
  const work = await worked(page);
  await go(page, 'Dummy');
  return work;
}

/** Goes with the arrow key from place to place as far as the last: the pages that are met at each, none of them wrong. */
async function walk(page: Page, work: WorkedOut, last: number): Promise<string[][]> {
  const seen: string[][] = [];
  for (let place = 0; place <= last; place++) {
    if (place) await page.keyboard.press('ArrowRight');
    await still(page, place);
    let met: string[] = [];
    const wrong = async () => {
      const found = await wrongInSight(page, work);
      met = [...found.met].sort();
      return found.wrong;
    };
    await expect.poll(wrong).toEqual([]);
    seen.push(met);
  }
  return seen;
}
const statesOf = (page: Page) => page.getByRole('toolbar', { name: 'What is done' }).getByRole('button');

test('a booklet is folded with keys: in every state the right pages are seen on the screen, upright; paged through, each opening shows its two', async ({
  page,
}) => {
  const work = await jobOfColours(page, 8, 'stitched booklet');
  await still(page, 0);
  const states = await statesOf(page).allInnerTexts();
  expect(states.map((name) => name.replace(/^[\d.]+ /, ''))).toEqual([
    'Print',
    'Fold',
    'Nest',
    'Bind',
    'Trim',
    'Done',
  ]);
  expect(await walk(page, work, states.length + 3)).toEqual([
    ['1', '8'],
    ['1'],
    ['1'],
    ['1'],
    ['1'],
    ['1'],
    ['2', '3'],
    ['4', '5'],
    ['6', '7'],
    ['8'],
  ]);

  // A page that is clicked is selected everywhere; one selected elsewhere is turned to.
  await page.keyboard.press('ArrowLeft');
  await still(page, 8);
  const [left] = (await quads(page)).filter(({ pages }) => pages.join() === '6');
  const box = (await page.locator('canvas').boundingBox())!;
  const middle = onQuad(left!.corners, 0.5, 0.5);
  await page.mouse.click(box.x + middle.x, box.y + middle.y);
  await expect(page.locator('#selected')).toHaveValue('6');
  await page.locator('#selected').fill('3');
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => (await quads(page)).flatMap(({ here, pages }) => (here ? pages : [])).sort())
    .toEqual(['2', '3']);
  // The state can be typed; from below the last page is met.
  await page.getByLabel('State, of').fill('6');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'From below' }).click();
  await still(page, 5);
  await expect
    .poll(async () => (await quads(page)).flatMap(({ here, pages }) => (here ? pages : [])))
    .toEqual(['8']);

  // Knives that err leave the page smaller, and cut its marks where they err by more than their distance.
  await page.getByRole('button', { name: 'Bring back' }).click();
  await slip(page).getByText('Let the machines err').click();
  await slip(page).getByLabel('Knives cut outside their line by').fill('-7');
  await expect(page.getByText('with machines that err')).toBeVisible();
  const whole = async () => [...(await wrongInSight(page, work)).met];
  await expect
    .poll(async () => [(await quads(page)).some(({ here }) => here), await whole()])
    .toEqual([true, []]);
  await slip(page).getByRole('button', { name: 'Without errors' }).click();
  await expect(page.getByText('with machines that err')).toBeHidden();
  await expect.poll(whole).toEqual(['1']);
});

test('without three dimensions the same states are drawn flat; still motion is asked for, they change at once', async ({
  page,
}) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.addInitScript(() => {
    const get = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (
      this: HTMLCanvasElement,
      kind: string,
      ...more: unknown[]
    ) {
      return kind.startsWith('webgl')
        ? null
        : (get as (...all: unknown[]) => unknown).call(this, kind, ...more);
    } as typeof get;
  });
  const work = await jobOfColours(page, 16, 'book in signatures');
  await expect(page.locator('canvas[data-dimensions="2"]')).toBeVisible();
  const seen = await walk(page, work, (await statesOf(page).count()) + 2);
  expect(seen.every((met) => met.length > 0)).toBe(true);
  expect(seen.at(-1)).toEqual(['6', '7']);
});

for (const [scheme, pages, last] of [
  ['book in signatures', 16, ['1']],
  ['folded leaflet', 6, undefined],
] as const)
  test(`in three dimensions every state of a ${scheme} shows the right pages, upright`, async ({ page }) => {
    await page.emulateMedia({ reducedMotion: 'reduce' });
    const work = await jobOfColours(page, pages, scheme);
    await expect(page.locator('canvas[data-dimensions="3"]')).toBeVisible();
    const seen = await walk(page, work, (await statesOf(page).count()) - 1);
    expect(seen.every((met) => met.length > 0)).toBe(true);
    if (last) expect(seen.at(-1)).toEqual(last);
  });

test('a job is proved by itself before its sheets go out: one that fails is held back with its pages, shown, mended, and goes', async ({
  page,
}) => {
  await jobOfColours(page, 8, 'stitched booklet');
  await go(page, 'Sheets');
  await page.getByRole('option', { name: 'Sheet 1 front: page 8', exact: true }).click();
  await slip(page).getByRole('button', { name: 'Swap' }).click();
  await page.getByRole('option', { name: 'Sheet 1 back: page 2', exact: true }).click();
  await saved(page);
  await go(page, 'Hand over');
  await page.getByRole('button', { name: 'Make sheet PDF' }).click();
  await expect(
    page.getByText('The sheets were folded before they went out, and 2 of 8 pages came out wrong'),
  ).toBeVisible();
  await go(page, 'Dummy');
  await slip(page).getByRole('button', { name: 'Prove it' }).click();
  await expect(slip(page).getByText('Proof: 2 of 8 pages come out wrong')).toBeVisible();
  await expect(
    slip(page).getByRole('img', { name: 'What was intended, what came out, and the difference' }),
  ).toHaveCount(2);
  await slip(page).getByRole('link', { name: 'Show on Sheets' }).first().click();
  await expect(page.getByRole('option', { name: 'Sheet 1 back: page 8', exact: true })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await page.getByRole('button', { name: 'Take back change 1' }).click();
  await saved(page);
  await go(page, 'Dummy');
  await expect(slip(page).getByText('Proved as it was')).toBeVisible();
  await go(page, 'Hand over');
  // Mended sheets need no reason.
  await expect(page.getByRole('button', { name: 'Make sheet PDF' })).toBeVisible();
  await expect(page.getByLabel('Goes out all the same')).toBeHidden();
  await makeOutput(page, 'Make sheet PDF');
  await expect(page.getByText('Proved: all 8 pages come out right')).toBeVisible();
  // The ticket says by what and when.
  await page.getByRole('button', { name: 'Job ticket', exact: true }).click();
  const ticket = tool('pdftotext', '-raw', keep(await makeOutput(page, 'Make job ticket')), '-');
  expect(ticket).toMatch(
    /Proof\s+Holds: 8 pages as intended\. Folded by Folder’s finishing line from the bytes of the\s+sheets, revision \d+, 20/,
  );
  // The paper dummy, folded by hand: the two faces of each leaf have the numbers of its two pages.
  await page.getByRole('button', { name: 'Paper dummy', exact: true }).click();
  const sides = wordsOf(keep(await makeOutput(page, 'Make paper dummy')));
  const number = (side: number, half: 'left' | 'right') => {
    const words = sides[side]!.filter(({ text }) => /^[1-8]$/.test(text));
    const middle = Math.max(...words.map(({ x }) => x)) / 2 + Math.min(...words.map(({ x }) => x)) / 2;
    return words.filter(({ x }) => (half === 'left') === x < middle).map(({ text }) => text);
  };
  expect(sides.length).toBe(4);
  expect(
    [number(0, 'left'), number(0, 'right'), number(1, 'left'), number(1, 'right')].map((all) => all[0]),
  ).toEqual(['8', '1', '2', '7']);
});
