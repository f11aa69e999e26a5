import { randomUUID } from 'node:crypto';
import { PDFDocument, rgb, StandardFonts, degrees } from '@cantoo/pdf-lib';
import { expect, test, type Page as Tab } from '@playwright/test';
import sharp from 'sharp';
import { bookOf } from '../tests/makers';
import { boxesOf, keep, readBack, rotationsOf, tool } from '../tests/outside';
import { PLAIN_COVER } from '../src/lib/core/sheets/scheme';
import { PLAIN_SCHEMES, type Scheme } from '../src/lib/core/sheets/schemes';
import { go, newJob, pdf } from './bench';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start();
});
test.afterAll(() => folder.kill());

/** Five pages of large shapes that tell head from foot and left from right, then a patch without a ground, a die line and another. */
async function drawn(): Promise<Buffer> {
  const document = await PDFDocument.create();
  const font = await document.embedFont(StandardFonts.HelveticaBold);
  const colours = [
    rgb(0.8, 0.9, 1),
    rgb(1, 0.9, 0.7),
    rgb(0.8, 1, 0.8),
    rgb(1, 0.8, 0.9),
    rgb(0.9, 0.9, 0.6),
  ];
  colours.forEach((color, n) => {
    const page = document.addPage([300, 420]);
    page.drawRectangle({ width: 300, height: 420, color });
    page.drawRectangle({ x: 20, y: 330, width: 120, height: 60, color: rgb(0.1, 0.2, 0.5) });
    page.drawText(`${n + 1}`, { x: 90, y: 140, size: 160, font, color: rgb(0.6, 0.1, 0.1) });
  });
  const patch = document.addPage([120, 80]);
  patch.drawEllipse({ x: 60, y: 40, xScale: 55, yScale: 35, color: rgb(0.9, 0, 0.5) });
  patch.drawRectangle({ x: 10, y: 5, width: 30, height: 20, color: rgb(0, 0, 0) });
  const die = document.addPage([300, 420]);
  die.drawRectangle({ x: 30, y: 30, width: 240, height: 360, borderWidth: 6, borderColor: rgb(0, 0.6, 0) });
  const turned = document.addPage([420, 300]);
  turned.drawRectangle({ width: 420, height: 300, color: rgb(0.85, 0.85, 1) });
  turned.drawEllipse({ x: 330, y: 60, xScale: 80, yScale: 40, color: rgb(0.5, 0.1, 0.6) });
  turned.setRotation(degrees(90));
  return Buffer.from(await document.save());
}

const at = { from: 'trim', x: 30, y: 30, face: 'Source Sans 3', weight: 'strong', size: 24 };
const ink = { as: 'process', c: 0, m: 0, y: 0, k: 1 };
/** Every kind of thing that can be put on pages. */
const stepsOn = (source: string) => {
  const graphic = (index: number) => ({ source, name: 'drawn.pdf', index });
  return [
    { id: 't', kind: 'take-in', source, name: 'drawn.pdf', where: { at: 'end' } },
    { id: 'out', kind: 'remove', pages: '6-7' },
    {
      id: 'small',
      kind: 'trim',
      pages: '2',
      width: 260,
      height: 380,
      content: 'fit',
      fixed: { x: 'centre', y: 'centre' },
    },
    {
      id: 'same',
      kind: 'trim',
      pages: '2',
      width: 300,
      height: 420,
      content: 'hold',
      fixed: { x: 'centre', y: 'centre' },
    },
    { id: 'round', kind: 'turn', pages: '3', by: 180 },
    {
      id: 'words',
      kind: 'blank',
      count: 1,
      where: { at: 'after', pages: '3' },
      words: 'Left blank on purpose',
    },
    { id: 'bleed', kind: 'bleed', pages: 'all', head: 12, foot: 12, spine: 12, fore: 12, fill: 'mirror' },
    {
      id: 'under',
      kind: 'stamp',
      pages: '4',
      graphic: graphic(5),
      size: { by: 'width', width: 220 },
      placing: { box: 'trim', x: 'centre', y: 'centre', dx: 0, dy: 0, turn: 0 },
      opacity: 1,
      behind: true,
    },
    {
      id: 'over',
      kind: 'stamp',
      pages: '1, 5',
      graphic: graphic(5),
      size: { by: 'scale', scale: 1.7 },
      placing: { box: 'trim', x: 'outer', y: 'foot', dx: 20, dy: 60, turn: 35 },
      opacity: 0.6,
    },
    {
      id: 'die',
      kind: 'overlay',
      pages: 'odd',
      graphic: graphic(6),
      register: { x: 'centre', y: 'centre' },
      scale: 1,
      purpose: 'printing',
      layer: 'Frame',
    },
    {
      id: 'folio',
      kind: 'folio',
      pages: 'all',
      edge: 'foot',
      across: 'outer',
      text: '– {n} –',
      blanks: true,
      ...at,
      ink,
    },
    {
      id: 'run',
      kind: 'running',
      pages: 'all',
      texts: [{ edge: 'head', across: 'outer', text: 'Moor railway' }],
      blanks: true,
      ...at,
      ink,
      rule: { at: 'under', width: 3, gap: 5 },
    },
  ];
};

const marks = {
  trim: true,
  fold: true,
  centre: true,
  registration: true,
  bar: true,
  slug: '{job} {sheet} {side}',
  weight: 1,
};
const stock = { width: 1100, height: 900, caliper: 0.3 };

const grey = (image: Buffer, width: number, height: number) =>
  sharp(image)
    .flatten({ background: '#fff' })
    .resize(width, height, { fit: 'fill' })
    .greyscale()
    .blur(1.2)
    .raw()
    .toBuffer();
/** By how much what is shown and what is written may differ: 1 % of dots. */
const MOST = 0.01;
/** How many dots of two pictures of one thing differ, as a share: renderers soften edges in their own ways. */
async function differ(ours: Buffer, theirs: Buffer): Promise<number> {
  const { width, height } = await sharp(ours).metadata();
  const [a, b] = [await grey(ours, width, height), await grey(theirs, width, height)];
  const share = a.filter((value, n) => Math.abs(value - b[n]!) > 64).length / a.length;
  if (share >= MOST)
    for (const [name, image] of [
      ['mat', ours],
      ['written', theirs],
    ] as const)
      keep(image, `${name}.png`);
  return share;
}

/** What is printed on the mat and nothing else, of the surface that an option of it stands for: in its space, from a corner to another. */
async function shown(page: Tab, name: string, box: [number, number, number, number]): Promise<Buffer> {
  const option = page.locator(`[role=option][aria-label${name}]`).first();
  await expect(option).toBeAttached();
  await expect.poll(() => page.locator('[data-printed] image[data-drawn]').count()).toBeGreaterThan(0);
  // Nothing is still on its way, and what came last is painted.
  await expect.poll(() => page.locator('[data-printed] rect[fill="#f1eee4"]').count()).toBe(0);
  await page.waitForTimeout(400);
  const clip = await option.evaluate((element, [x0, y0, x1, y1]) => {
    const space = (element.querySelector('g[data-printed]')?.parentElement ??
      element.parentElement) as unknown as SVGGElement;
    const to = space.getScreenCTM()!;
    const [from, end] = [new DOMPoint(x0, y1).matrixTransform(to), new DOMPoint(x1, y0).matrixTransform(to)];
    return { x: from.x, y: from.y, width: end.x - from.x, height: end.y - from.y };
  }, box);
  const style = await page.addStyleTag({ content: ONLY_PRINTED });
  const image = await page.screenshot({ clip });
  await style.evaluate((element) => (element as unknown as HTMLElement).remove());
  return image;
}
const ONLY_PRINTED = `
  * { background: #fff !important; transition: none !important; }
  body * { visibility: hidden !important; }
  [data-printed], [data-printed] * { visibility: visible !important; }`;

function rendered(path: string, page: number, box: [number, number, number, number], ppi: number): Buffer {
  const [x0, y0, x1, y1] = box.map((n) => (n * ppi) / 72) as typeof box;
  const size = boxesOf(path)[page - 1]!.MediaBox!;
  const turned = rotationsOf(path)[page - 1]! % 180 !== 0;
  const top = ((turned ? size[2]! - size[0]! : size[3]! - size[1]!) * ppi) / 72;
  const figures = { r: ppi, f: page, l: page, x: x0, y: top - y1, W: x1 - x0, H: y1 - y0 };
  const said = Object.entries(figures).flatMap(([flag, n]) => [`-${flag}`, String(Math.round(n))]);
  const out = `${path}-${page}-${Math.round(x0)}`;
  tool('pdftoppm', ...said, '-png', '-singlefile', path, out);
  return readBack(`${out}.png`);
}

/** The whole mat in sight, on a large screen. */
async function everything(page: Tab): Promise<void> {
  await page.setViewportSize({ width: 2200, height: 1800 });
  await page.locator('[role=option]').first().waitFor();
  await page.keyboard.press('9');
}

/** A job of the drawn file, its outputs made. */
async function jobOf(
  scheme: Scheme,
  more: object[] = [],
): Promise<{ id: string; sheets: string; pages: string }> {
  const name = `mat ${randomUUID()}`;
  await folder.send('PUT', '/api/recipes', {
    recipe: 1,
    name,
    steps: [{ id: 'r', kind: 'remove', pages: '6-8' }],
    scheme: { kind: 'none' },
    outputs: [],
  });
  const { id: run } = await folder.send<{ id: string }>(
    'POST',
    `/api/runs?${new URLSearchParams({ recipe: name, batch: randomUUID(), name: 'drawn.pdf' })}`,
    await drawn(),
  );
  const job = async () =>
    (
      await folder.query<{ job_id: string; state: string }>(
        `select job_id, state || coalesce(trouble::text, '') as state from run where id = '${run}'`,
      )
    )[0]!;
  await expect.poll(async () => (await job()).state).toBe('done');
  const docket = await folder.send<{ steps: { source: string }[] }>(
    'GET',
    `/api/jobs/${(await job()).job_id}/docket`,
  );
  const steps = [...stepsOn(docket.steps[0]!.source), ...more];
  const { id } = await folder.send<{ id: string }>('POST', '/api/jobs', {
    docket: { ...docket, title: 'Mat', steps, scheme, book: bookOf('right') },
  });
  const file = async (output: object) => {
    const { id: made } = await folder.send<{ id: string }>('POST', `/api/jobs/${id}/outputs`, {
      output,
      despite: 'It is a test.',
    });
    const state = async () =>
      (await folder.query<{ state: string }>(`select state from output where id = '${made}'`))[0]!.state;
    await expect.poll(state).toBe('done');
    const answer = await folder.ask('GET', `/api/outputs/${made}/file`);
    return keep(Buffer.from(await answer.arrayBuffer()));
  };
  return { id, sheets: await file({ kind: 'sheets' }), pages: await file({ kind: 'pages', crop: 'bleed' }) };
}

test('what the mat shows is what is written: every kind of thing on pages and in pairs (poppler, 1 % of dots)', async ({
  page,
}) => {
  const { id, pages } = await jobOf({ ...PLAIN_SCHEMES.stitched, stock, marks });
  const count = boxesOf(pages).length;
  for (const stage of ['pages', 'numbers'] as const) {
    await page.goto(`${folder.url}/jobs/${id}/${stage}`);
    await everything(page);
    if (stage === 'numbers') {
      // It opens on the first pair.
      await page.getByRole('listbox', { name: 'Facing pages' }).press('Home');
    }
    for (let n = 1; n <= count; n++) {
      if (stage === 'numbers' && n > 1 && n % 2 === 0)
        await page.getByRole('button', { name: 'Next spread' }).click();
      const box: [number, number, number, number] = [0, 0, 300, 420];
      const ours = await shown(page, `^="Page ${n},"`, box);
      const theirs = rendered(pages, n, [12, 12, 312, 432], 144);
      expect(await differ(ours, theirs), `page ${n} on ${stage}`).toBeLessThan(MOST);
    }
  }
});

const cover = [{ id: 'c', kind: 'cover', pages: '6-7', parts: ['front', 'back'] }];
for (const [what, scheme, more] of [
  [
    'signatures with bars, and a cover with text on its spine',
    {
      ...PLAIN_SCHEMES.signatures,
      stock: { ...stock, width: 1400, height: 1500 },
      signature: 8,
      marks,
      cover: { ...PLAIN_COVER, stock: { width: 900, height: 700 }, spine: 30, text: 'Moor', textSize: 18 },
    },
    cover,
  ],
  ['flat, turned, as many as fit', { ...PLAIN_SCHEMES.flat, stock, marks, turned: 90 }, []],
  ['single pages', { ...PLAIN_SCHEMES.single, marks }, []],
] as const)
  test(`what the mat shows is what is written: sheets, ${what} (poppler, 1 % of dots)`, async ({ page }) => {
    const { id, sheets } = await jobOf(scheme as Scheme, [...more]);
    await page.goto(`${folder.url}/jobs/${id}/sheets`);
    await everything(page);
    const boxes = boxesOf(sheets);
    const backed = scheme.kind !== 'single';
    for (const n of [1, 2, 3]) {
      const [, , width, height] = boxes[n - 1]!.MediaBox!;
      // A cover without an inside has no back.
      const side = backed && (n < boxes.length || n % 2 === 0) ? ` ${n % 2 ? 'front' : 'back'}` : '';
      const name = `^="Sheet ${backed ? Math.ceil(n / 2) : n}"][aria-label*="${side}: "`;
      const ours = await shown(page, name, [0, 0, width!, height!]);
      const theirs = rendered(sheets, n, [0, 0, width!, height!], 100);
      expect(await differ(ours, theirs), `side ${n}`).toBeLessThan(MOST);
    }
  });

test('photographs look on the mat as their pages do, however the camera was held, and nobody fetches PDFium for them (poppler)', async ({
  page,
}) => {
  const [width, height] = [1200, 1680];
  const dots = Buffer.alloc(width * height * 3, 255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const inside = x > 100 && x < 700 && y > 150 && y < 500;
      dots.set(
        inside ? [20, 60, 140] : [(200 * x) / width, 220, 255 - (90 * y) / height],
        (y * width + x) * 3,
      );
    }
  const document = await PDFDocument.create();
  for (const way of [{}, { orientation: 6 }, { orientation: 3 }]) {
    const image = sharp(dots, { raw: { width, height, channels: 3 } }).withMetadata(way);
    const jpeg = await document.embedJpg(await image.jpeg({ quality: 92 }).toBuffer());
    document.addPage([300, 420]).drawImage(jpeg, { width: 300, height: 420 });
  }
  const buffer = Buffer.from(await document.save());
  const fetched: string[] = [];
  page.on('request', (request) => fetched.push(request.url()));
  await newJob(page, folder.url);
  await page.locator('.slip input[type=file]').setInputFiles([pdf('photographs.pdf', buffer)]);
  await go(page, 'Pages');
  await expect(page.locator('[role=option]')).toHaveCount(3);
  const path = keep(buffer);
  // Small, where a JPEG is unpacked in fewer dots than it has, and large.
  for (const [wide, high] of [
    [1280, 800],
    [2200, 1800],
  ] as const) {
    await page.setViewportSize({ width: wide, height: high });
    await page.keyboard.press('9');
    await page.waitForTimeout(1500);
    for (const n of [1, 2, 3]) {
      const ours = await shown(page, `^="Page ${n},"`, [0, 0, 300, 420]);
      const theirs = rendered(path, n, [0, 0, 300, 420], 144);
      expect(await differ(ours, theirs), `page ${n}, ${wide} wide`).toBeLessThan(MOST);
    }
  }
  expect(fetched.filter((url) => url.includes('.wasm'))).toEqual([]);
});
