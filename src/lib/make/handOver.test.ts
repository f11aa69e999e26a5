import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFArray, PDFDict, PDFDocument, PDFName, PDFRawStream, PDFString } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { drawCover } from '../../../demo/timetable';
import { bookOf, docketOf, stepsOf } from '../../../tests/makers';
import { boxesOf, give, keep, markedPdf, tool, wordsOf, type Given } from '../../../tests/outside';
import type { StepDraft } from '../core/docket/steps';
import { DIE_LINE } from '../core/docket/steps/overlay';
import { PLAIN_LINES } from '../core/model/lines';
import type { Docket } from '../core/docket/docket';
import type { Output } from '../core/handover/outputs';
import { PLAIN_SCHEMES } from '../core/sheets/schemes';
import { firstOf } from '../core/entries';
import { checkFiles } from './checkFiles';
import { handOver } from './handOver';
import type { MadeFile } from './made';
import { receiveSurveys, sendSurveys, type SentSurveys } from '../server/fenced/sentSurveys';

const at = new Date('2026-01-05T09:00:00Z');
async function make(docket: Docket, output: Output, ...given: Given[]) {
  const folder = mkdtempSync(join(tmpdir(), 'folder-made-'));
  const surveys = Object.fromEntries(given.map(({ hash, survey }) => [hash, survey]));
  const read = (source: string) => Promise.resolve(given.find(({ hash }) => hash === source)!.bytes);
  const made = await handOver(docket, output, { surveys, read, folder, at });
  const check = (files: readonly MadeFile[] = made) => checkFiles(docket, output, files, { surveys, folder });
  await check();
  return { made, check, paths: made.map(({ file }) => join(folder, file)) };
}
const docket = (given: Given, drafts: StepDraft[] = [], more: Partial<Docket> = {}) =>
  docketOf(
    [
      { id: 't', kind: 'take-in', source: given.hash, name: 'marked.pdf', where: { at: 'end' } },
      ...stepsOf(drafts),
    ],
    { title: 'Moor', book: bookOf('right'), ...more },
  );
const textOf = (path: string) =>
  wordsOf(path)
    .flat()
    .map(({ text }) => text);
const folio = {
  kind: 'folio',
  pages: 'all',
  ...PLAIN_LINES,
  x: 30,
  y: 30,
  edge: 'foot',
  across: 'outer',
  text: 'F{page}',
} as unknown as StepDraft;

/** Forty marked pages with bookmarks every ten pages, one of them by name, and links from page 1 to pages 2 and 40. */
async function linked(): Promise<Uint8Array> {
  const document = await PDFDocument.load(await markedPdf(40), { updateMetadata: false });
  const { context, catalog } = document;
  const pages = document.getPages().map(({ ref }) => ref);
  const key = PDFName.of;
  const items = [0, 10, 20, 30].map(() => context.nextRef());
  items.forEach((ref, n) => {
    const target = n === 2 ? PDFString.of('third') : [pages[10 * n], 'Fit'];
    const entries = { Title: PDFString.of(`Chapter ${n + 1}`), Dest: target, Parent: context.obj({}) };
    const item = context.obj(entries as never) as unknown as import('@cantoo/pdf-lib').PDFDict;
    if (items[n + 1]) item.set(key('Next'), items[n + 1]!);
    if (items[n - 1]) item.set(key('Prev'), items[n - 1]!);
    context.assign(ref, item);
  });
  catalog.set(
    key('Outlines'),
    context.register(context.obj({ First: items[0], Last: items[3], Count: 4 } as never)),
  );
  catalog.set(
    key('Names'),
    context.obj({ Dests: { Names: [PDFString.of('third'), { D: [pages[20], 'Fit'] }] } } as never),
  );
  const link = (to: number) =>
    context.register(
      context.obj({
        Type: 'Annot',
        Subtype: 'Link',
        Rect: [0, 0, 9, 9],
        A: { S: 'GoTo', D: [pages[to], 'Fit'] },
      } as never),
    );
  document.getPage(0).node.set(key('Annots'), PDFArray.withContext(context));
  for (const to of [1, 39]) (document.getPage(0).node.lookup(key('Annots')) as PDFArray).push(link(to));
  return document.save({ useObjectStreams: false });
}

interface Outline {
  title: string;
  destpageposfrom1: number | null;
  kids: Outline[];
}
const readJson = (path: string) =>
  JSON.parse(tool('qpdf', '--json=2', '--json-key=outlines', '--json-key=pages', path)) as {
    outlines: Outline[];
  };

describe('split', () => {
  test('parts have all text in order, boxes and folios as in the whole, and bookmarks and links that work (poppler, qpdf)', async () => {
    const given = await give(await linked());
    const whole = await make(docket(given, [folio]), { kind: 'pages', crop: 'trim' }, given);
    const { made, paths } = await make(
      docket(given, [folio]),
      { kind: 'pages', crop: 'trim', split: { by: 'bookmarks', level: 0 }, name: '{job} {part} {from}-{to}' },
      given,
    );
    expect(made.map(({ name, pages }) => [name, pages])).toEqual(
      [1, 2, 3, 4].map((n) => [`Moor Chapter ${n} ${String(10 * n - 9).padStart(2, '0')}-${10 * n}.pdf`, 10]),
    );
    expect(paths.flatMap(textOf)).toEqual(textOf(whole.paths[0]!));
    expect(paths.flatMap(boxesOf)).toEqual(boxesOf(whole.paths[0]!));
    paths.forEach((path, n) => {
      tool('qpdf', '--check', path);
      // qpdf does not follow names.
      expect(readJson(path).outlines.map(({ title, destpageposfrom1: to }) => [title, to])).toEqual([
        [`Chapter ${n + 1}`, n === 2 ? null : 1],
      ]);
      expect(tool('mutool', 'show', path, 'outline')).toContain(`"Chapter ${n + 1}"\t#page=1&`);
      // Bytes of pages that went into other parts must not ride along.
      expect(readFileSync(path).length).toBeLessThan(0.45 * readFileSync(whole.paths[0]!).length);
    });
    const links = (path: string) =>
      tool('mutool', 'show', path, 'pages/1/Annots/*/A/D').match(/\d+ 0 R/g) ?? [];
    expect(links(whole.paths[0]!)).toHaveLength(2);
    expect(links(paths[0]!)).toHaveLength(1);
  });

  test('odd and even apart: the backs in reverse are what a pile turned over asks for (poppler)', async () => {
    const given = await give(await markedPdf(6));
    const { paths } = await make(
      docket(given),
      { kind: 'pages', crop: 'trim', split: { by: 'faces', reverse: true } },
      given,
    );
    const marks = (path: string) => textOf(path).filter((word) => /^P\d/.test(word));
    expect(paths.map(marks)).toEqual([
      ['P1', 'P3', 'P5'],
      ['P6', 'P4', 'P2'],
    ]);
  });

  test('sheets: each part holds its own sides and no other page', async () => {
    const given = await give(await markedPdf(16));
    const scheme = PLAIN_SCHEMES.stitched;
    const { made, paths } = await make(
      docket(given, [], { scheme }),
      { kind: 'sheets', split: { by: 'every', count: 2 } },
      given,
    );
    expect(made.map(({ from, to, pages }) => [from, to, pages])).toEqual([1, 2, 3, 4].map((n) => [n, n, 2]));
    // Stitched, by practice: sheet s has pages N−2s, 2s+1 and 2s+2, N−2s−1.
    paths.forEach((path, s) => {
      const seen = textOf(path).filter((word) => /^P\d/.test(word));
      expect(new Set(seen)).toEqual(
        new Set([16 - 2 * s, 2 * s + 1, 2 * s + 2, 15 - 2 * s].map((n) => `P${n}`)),
      );
    });
  });

  test('by size: no file is over what was asked, none could take the next page, and a page that is too large is told', async () => {
    const document = await PDFDocument.create();
    // Noise does not pack: pages of about 3, 40 and 90 kB in turn.
    for (let n = 0; n < 14; n++) {
      const side = [30, 115, 172][n % 3]!;
      let seed = n + 1;
      const dots = Buffer.from(
        Array.from(
          { length: side * side * 3 },
          () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) >>> 24,
        ),
      );
      const png = await sharp(dots, { raw: { width: side, height: side, channels: 3 } })
        .png()
        .toBuffer();
      document.addPage([200, 200]).drawImage(await document.embedPng(png), { width: 100, height: 100 });
    }
    const given = await give(await document.save({ useObjectStreams: false }));
    const sizes = (
      await make(docket(given), { kind: 'pages', crop: 'trim', split: { by: 'every', count: 1 } }, given)
    ).made;
    const mb = 0.06;
    const { made, paths } = await make(
      docket(given),
      { kind: 'pages', crop: 'trim', split: { by: 'size', mb } },
      given,
    );
    expect(made.reduce((sum, { pages }) => sum + pages!, 0)).toBe(14);
    expect(made.filter(({ over }) => over)).not.toEqual([]);
    expect(made.some(({ pages }) => pages! > 1)).toBe(true);
    made.forEach(({ over, pages }, n) => {
      const bytes = readFileSync(paths[n]!).length;
      if (over) expect(pages).toBe(1);
      else expect(bytes).toBeLessThanOrEqual(mb * 1e6);
      const next = made[n + 1];
      if (!over && next) expect(bytes + sizes[next.from! - 1]!.bytes).toBeGreaterThan(0.75 * mb * 1e6);
    });
  });
});

test('previews have the dots that their size and resolution ask for, and show the page', async () => {
  const given = await give(await markedPdf(2, { size: { width: 288, height: 144 } } as never));
  const { made, paths } = await make(docket(given), { kind: 'previews', of: 'pages', ppi: 144 }, given);
  expect(made.map(({ name }) => name)).toEqual(['Moor preview 1.png', 'Moor preview 2.png']);
  const [box] = boxesOf(keep(given.bytes));
  const { width, height, density } = await sharp(paths[0]).metadata();
  expect([width, height, density]).toEqual([2 * box!.MediaBox![2]!, 2 * box!.MediaBox![3]!, 144]);
  const { channels } = await sharp(paths[0]).stats();
  expect(channels[0]!.min).toBeLessThan(60);
});

test('the press stand-in shows each side as its sheet comes out, backs turned as it turns; the sides themselves are those of the sheet PDF (poppler)', async () => {
  const given = await give(await markedPdf(8));
  const job = docket(given, [], { scheme: PLAIN_SCHEMES.stitched });
  const sheets = (await make(job, { kind: 'sheets' }, given)).paths[0]!;
  const planned = await make(job, { kind: 'press', ppi: 72 }, given);
  const wrong = await make(job, { kind: 'press', ppi: 72, turn: 'long-edge' }, given);
  const grey = (image: string | Buffer, turn = 0) => sharp(image).rotate(turn).greyscale().raw().toBuffer();
  expect(planned.made.map(({ name }) => name)).toEqual(
    ['1 front', '1 back', '2 front', '2 back'].map((side) => `Moor printed ${side}.png`),
  );
  expect(wrong.made.map(({ upsideDown = false }) => upsideDown)).toEqual([false, true, false, true]);
  for (const n of [0, 1, 2, 3]) {
    const shown = await grey(planned.paths[n]!);
    expect(shown.equals(await grey(wrong.paths[n]!, 180 * (n % 2)))).toBe(true);
    const { width, height } = await sharp(planned.paths[n]!).metadata();
    const dots = ['-scale-to-x', String(width), '-scale-to-y', String(height)];
    tool('pdftoppm', ...dots, '-png', '-singlefile', '-f', `${n + 1}`, sheets, `${sheets}-${n}`);
    // Two renderers soften edges in their own ways: what is looked at is where ink lies.
    const soft = (image: string) => sharp(image).greyscale().blur(3).raw().toBuffer();
    const [ours, theirs] = [await soft(planned.paths[n]!), await soft(`${sheets}-${n}.png`)];
    const differ = ours.reduce((sum, value, at) => sum + Math.abs(value - theirs[at]!), 0);
    expect(differ / ours.reduce((sum, value) => sum + 255 - value, 0)).toBeLessThan(0.5);
    const away = Buffer.from(theirs).reverse();
    expect(ours.reduce((sum, value, at) => sum + Math.abs(value - away[at]!), 0)).toBeGreaterThan(2 * differ);
  }
});

test('the cutter stand-in draws the cut paths of each front in real size, how long they are and what they cut loose; what is not there is said', async () => {
  const given = await give(await markedPdf(8));
  const marks = { ...PLAIN_SCHEMES.stitched.marks, paths: true as const };
  const job = docket(given, [], { scheme: { ...PLAIN_SCHEMES.stitched, marks } });
  const { made, paths } = await make(job, { kind: 'cutter', of: 'sheets' }, given);
  expect(made.map(({ name, cut }) => [name, cut!.pieces])).toEqual([
    ['Moor cut path 1.svg', 1],
    ['Moor cut path 2.svg', 1],
  ]);
  // Round two pages of 420 × 595 points side by side, which stay together at the fold.
  expect(made[0]!.cut!.length).toBeCloseTo(2 * (840 + 595), 1);
  const svg = readFileSync(paths[0]!, 'utf8');
  const { width, height } = made[0]!.size!;
  expect(svg).toContain(`width="${Number(((width * 25.4) / 72).toFixed(4))}mm"`);
  const { info } = await sharp(Buffer.from(svg)).raw().toBuffer({ resolveWithObject: true });
  expect(info.width / info.height).toBeCloseTo(width / height, 2);
  // What is printed lies beneath the path.
  const inked = async (drawing: string) => {
    const { data } = await sharp(Buffer.from(drawing))
      .flatten({ background: '#fff' })
      .greyscale()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return data.filter((value) => value < 200).length;
  };
  expect(await inked(svg)).toBeGreaterThan(1.1 * (await inked(svg.replace(/<image[^>]*>/, ''))));
  await expect(
    make(job, { kind: 'cutter', of: 'pages', by: { what: 'ink', name: 'Die' } }, given),
  ).rejects.toMatchObject({
    trouble: { code: 'cut-not-found', data: { name: 'Die' } },
  });
});

test('the job ticket says what the job is, why it goes out, and shows both sides of its first sheet (poppler)', async () => {
  const given = await give(await markedPdf(8));
  const folder = mkdtempSync(join(tmpdir(), 'folder-made-'));
  const work = docket(given, [{ kind: 'remove', pages: '99' } as StepDraft], {
    title: 'Larkmoor — Füße 東京',
    scheme: PLAIN_SCHEMES.stitched,
  });
  const [{ file }] = (await handOver(
    work,
    { kind: 'ticket' },
    {
      surveys: { [given.hash]: given.survey },
      read: () => Promise.resolve(given.bytes),
      folder,
      at,
      despite: 'The customer has seen it.',
    },
  )) as [MadeFile];
  const path = join(folder, file);
  tool('qpdf', '--check', path);
  expect(tool('pdfinfo', path)).toMatch(/Pages: +4\n[^]*A4/);
  const text = tool('pdftotext', '-layout', path, '-').replace(/\s+/g, ' ');
  for (const words of [
    'Larkmoor — Füße',
    '8 pages',
    'stitched booklet',
    '2 sheets',
    'STOP: A step does not apply',
    'The customer has seen it.',
    'Sheet 1, back',
  ])
    expect(text).toContain(words);
  // Front 8 1, back 2 7.
  for (const mark of ['P8', 'P1', 'P2', 'P7']) expect(textOf(path)).toContain(mark);
});

test('files are held against what was asked, spot inks too; one that is not what it should be is refused', async () => {
  const given = await give(await drawCover('front'));
  const { made, check, paths } = await make(docket(given), { kind: 'pages', crop: 'bleed' }, given);
  writeFileSync(paths[0]!, await markedPdf(1));
  await expect(check(made)).rejects.toMatchObject({
    trouble: { code: 'disagrees', data: { what: 'trim', page: 1 } },
  });
  writeFileSync(paths[0]!, await markedPdf(3));
  await expect(check(made)).rejects.toMatchObject({
    trouble: { data: { what: 'pages', asked: '1', written: '3' } },
  });
});

/** What a file shows, page by page, as MuPDF draws it; nothing if it cannot. */
function shownBy(path: string): string {
  try {
    return tool('mutool', 'draw', '-q', '-r', '40', '-F', 'pgm', '-o', '-', path);
  } catch {
    return '';
  }
}

test.each([[{ kind: 'pages', crop: 'bleed' }], [{ kind: 'sheets' }], [{ kind: 'spreads' }]] as const)(
  'whatever goes missing of a file or is another page, it is refused where that shows (MuPDF): %j',
  async (output) => {
    const given = await give(await markedPdf(4, { bleed: 9 }));
    const cover = await give(await drawCover('front'));
    const { takeOut: _, ...line } = DIE_LINE;
    const over = { ...line, pages: '2', graphic: { source: cover.hash, name: 'cover.pdf', index: 0 } };
    const job = docket(given, [folio, over as unknown as StepDraft], { scheme: PLAIN_SCHEMES.stitched });
    const { made, check, paths } = await make(job, output, given, cover);
    const path = firstOf(paths);
    const [bytes, right] = [readFileSync(path), shownBy(path)];
    const open = () => PDFDocument.load(bytes, { updateMetadata: false });
    const save = async (document: PDFDocument) =>
      writeFileSync(path, await document.save({ useObjectStreams: false, addDefaultPage: false }));
    const refs = (await open()).context.enumerateIndirectObjects().map(([ref]) => ref);
    let refused = 0;
    const refuses = async (without: string, document: PDFDocument) => {
      await save(document).catch(() => writeFileSync(path, ''));
      if (shownBy(path) === right) return;
      await expect(check(made), `without ${without}`).rejects.toThrow();
      refused++;
    };
    for (const ref of refs) {
      const [document, other] = [await open(), await open()];
      const object = other.context.lookup(ref);
      document.context.delete(ref);
      await refuses(`${ref} ${object}`, document);
      // What was put on pages is not packed.
      if (!(object instanceof PDFRawStream) || object.dict.has(PDFName.of('Filter'))) continue;
      other.context.assign(ref, PDFRawStream.of(object.dict, new Uint8Array()));
      await refuses(`what ${ref} says`, other);
    }
    expect(refused).toBeGreaterThan(15);

    const [document, key] = [await open(), PDFName.of];
    const [one, other] = document.getPages().map(({ node }) => node);
    const [from, to] =
      output.kind === 'pages'
        ? [one!, other!]
        : [one!, other!].map((node) => node.lookup(key('Resources'), PDFDict));
    const entry = key(output.kind === 'pages' ? 'Contents' : 'XObject');
    const [was, becomes] = [from!.get(entry)!, to!.get(entry)!];
    from!.set(entry, becomes);
    to!.set(entry, was);
    await save(document);
    await expect(check(made)).rejects.toMatchObject({ trouble: { code: 'disagrees' } });
  },
);

test('surveys go to the writer with each kind of page said once, measured as far as the output needs it', () => {
  const box = { x0: 0, y0: 0, x1: 420, y1: 595 };
  const plain = (rotate: 0 | 90) => ({
    boxes: { media: box, crop: box, bleed: box, trim: box, art: box },
    given: ['media' as const],
    rotate,
    userUnit: 1,
    toUpright: [1, 0, 0, 1, 0, 0] as const,
  });
  const drawn = { ink: box, text: box, ppi: 90, numbers: [{ value: 3, x: 1, y: 2, turn: 90 as const }] };
  const rest = {
    version: 1,
    inks: [],
    bookmarks: [],
    producer: '',
    pdfVersion: '1.7',
    byteCount: 9,
  } as const;
  const pages = [plain(0), { ...plain(90), drawn }, plain(0), { ...plain(0), drawn }];
  const surveys = { s: { ...rest, encryption: 'none' as const, inks: [], bookmarks: [], pages } };
  const sent = (kind: 'sheets' | 'ticket') => sendSurveys(surveys, { kind });
  const received = (kind: 'sheets' | 'ticket') =>
    receiveSurveys(JSON.parse(JSON.stringify(sent(kind))) as SentSurveys);
  expect(sent('sheets').s!.kinds).toHaveLength(2);
  expect(received('ticket')).toEqual(surveys);
  const needed = { ink: drawn.ink, numbers: drawn.numbers };
  expect(received('sheets').s!.pages.map((page) => page.drawn)).toEqual([
    undefined,
    needed,
    undefined,
    needed,
  ]);
});
