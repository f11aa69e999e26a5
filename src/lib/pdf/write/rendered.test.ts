import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { bookOf, docketOf } from '../../../../tests/makers';
import { caseFile, MADE_FILES } from '../../../../tests/madeFiles';
import { give, keep, make, readBack, tool, writtenPdf, type Given } from '../../../../tests/outside';
import type { Step } from '../../core/docket/steps';
import { heightOf, widthOf } from '../../core/measure/box';
import { PLAIN_SCHEMES, type Flat } from '../../core/sheets/schemes';
import { startRenderer } from '../../raster/nodeRenderer';
import type { PdfOutput } from './writeOutput';

interface Picture {
  width: number;
  height: number;
  dots: Buffer;
}
const picture = async (path: string): Promise<Picture> => {
  const { data, info } = await sharp(path).flatten({ background: '#fff' }).removeAlpha().raw().toBuffer({
    resolveWithObject: true,
  });
  return { width: info.width, height: info.height, dots: data };
};
/** A page drawn by another program at so many dots an inch. */
const DRAWN_BY: Record<string, (path: string, page: number, ppi: number) => Promise<Picture>> = {
  poppler: (path, page, ppi) => {
    const out = `${path}-${page}-${ppi}`;
    tool('pdftoppm', '-png', '-singlefile', '-f', `${page}`, '-r', `${ppi}`, path, out);
    return picture(`${out}.png`);
  },
  mutool: (path, page, ppi) => {
    const out = `${path}-${page}-${ppi}-m.png`;
    tool('mutool', 'draw', '-q', '-r', `${ppi}`, '-o', out, path, `${page}`);
    return picture(out);
  },
};
/** A channel of a dot may be off by so much: an edge that lies between two dots. */
const SAME = 48;
/** The share of dots that differ, also from their neighbours: what is the same but for a dot's place does not count. */
function difference(a: Picture, b: Picture): number {
  expect(Math.abs(a.width - b.width) + Math.abs(a.height - b.height)).toBeLessThanOrEqual(2);
  const [width, height] = [Math.min(a.width, b.width), Math.min(a.height, b.height)];
  let differ = 0;
  const near = (x: number, y: number) => {
    for (let j = Math.max(0, y - 1); j <= Math.min(height - 1, y + 1); j++)
      for (let i = Math.max(0, x - 1); i <= Math.min(width - 1, x + 1); i++)
        if (
          [0, 1, 2].every(
            (c) => Math.abs(a.dots[3 * (y * a.width + x) + c]! - b.dots[3 * (j * b.width + i) + c]!) <= SAME,
          )
        )
          return true;
    return false;
  };
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if (!near(x, y)) differ++;
  return differ / (width * height);
}

const PPI = 100;
const SCALE = 0.7;
const takeIn = ({ hash }: Given): Step => ({
  id: 't',
  kind: 'take-in',
  source: hash,
  name: 'made.pdf',
  where: { at: 'end' },
});
const smaller = (given: Given): Step => {
  const { media } = given.survey.pages[0]!.boxes;
  return {
    id: 's',
    kind: 'trim',
    pages: 'all',
    width: SCALE * widthOf(media),
    height: SCALE * heightOf(media),
    content: 'fit',
    fixed: { x: 'centre', y: 'centre' },
  };
};
const copied: Step = { id: 'c', kind: 'copy', pages: '1', where: { at: 'end' } };
const plain = { kind: 'single', marks: { trim: false, fold: false } } as const;

describe.each(Object.keys(DRAWN_BY))('drawn by %s', (program) => {
  const draw = DRAWN_BY[program]!;
  test.each(Object.entries(MADE_FILES))(
    '%s: smaller, copied, on pages and on sheets as in its source',
    async (_, bytes) => {
      const given = await give(bytes);
      const source = keep(bytes);
      // Poppler takes a page's own unit (UserUnit) for a point.
      const unit = program === 'poppler' ? given.survey.pages[0]!.userUnit : 1;
      const wanted = await draw(source, 1, PPI * SCALE * unit);
      // Not an empty page, nor one of one colour.
      expect(difference(wanted, { ...wanted, dots: Buffer.alloc(wanted.dots.length, 255) })).toBeGreaterThan(
        0.02,
      );
      for (const output of [{ kind: 'pages', crop: 'trim' }, { kind: 'sheets' }] as PdfOutput[]) {
        const docket = docketOf([takeIn(given), copied, smaller(given)], { scheme: plain });
        const made = await make(docket, output, given);
        for (const page of [1, 2])
          expect([
            output.kind,
            page,
            Math.floor(
              100 * difference(await draw(made, page, PPI * (output.kind === 'pages' ? unit : 1)), wanted),
            ),
          ]).toEqual([output.kind, page, 0]);
      }
    },
    60_000,
  );
});

/** What becomes of a page, and of a picture of it: in the order in which the pages of one job carry it. */
const WAYS = ['turned', 'held', 'filled', 'joined', 'bled', 'left half', 'right half'] as const;
const [HELD, FILLED] = [
  { x: 0.6, y: 0.6 },
  { x: 0.5, y: 0.3 },
];
/** Dots an inch at which points are whole ones, so that what is cut off moves no dot. */
const EVEN = 72;
/** By which share of a page's width its mirrored bleed reaches beyond it. */
const BLEED = 0.1;
function workedOver(given: Given): Step[] {
  const { media } = given.survey.pages[0]!.boxes;
  const [width, height] = [widthOf(media), heightOf(media)];
  const reach = BLEED * width;
  const sized = (pages: string, share: typeof HELD, content: 'hold' | 'fill'): Step => ({
    id: content,
    kind: 'trim',
    pages,
    width: share.x * width,
    height: share.y * height,
    content,
    fixed: { x: 'centre', y: 'centre' },
  });
  return [
    takeIn(given),
    ...(given.survey.pages.length > 1 ? [{ id: 'r', kind: 'remove', pages: '2-last' } as Step] : []),
    ...Array.from({ length: 6 }, (_, n): Step => ({ ...copied, id: `c${n}` }) as Step),
    { id: 'turn', kind: 'turn', pages: '1', by: 90 },
    sized('2', HELD, 'hold'),
    sized('3', FILLED, 'fill'),
    { id: 'join', kind: 'join', pages: '4-5', columns: 2, rows: 1, gap: 0 } as Step,
    {
      id: 'bleed',
      kind: 'bleed',
      pages: '5',
      head: reach,
      foot: reach,
      spine: reach,
      fore: reach,
      art: 'mirror',
    } as Step,
    { id: 'split', kind: 'split', pages: '6', columns: 2, rows: 1, gutter: 0 } as Step,
  ];
}
/** The same done to a picture of the page. */
async function pictured({ width, height, dots }: Picture, way: (typeof WAYS)[number]): Promise<Picture> {
  const image = sharp(dots, { raw: { width, height, channels: 3 } });
  const middle = ({ x, y }: typeof HELD) => ({
    left: Math.round((width * (1 - x)) / 2),
    top: Math.round((height * (1 - y)) / 2),
    width: Math.round(width * x),
    height: Math.round(height * y),
  });
  const half = Math.round(width / 2);
  const reach = Math.round(BLEED * width);
  const made = {
    turned: () => image.rotate(90),
    held: () => image.extract(middle(HELD)),
    filled: () => image,
    joined: async () => {
      const input = await image.png().toBuffer();
      const wide = { create: { width: 2 * width, height, channels: 3 as const, background: '#fff' } };
      return sharp(wide).composite([
        { input, left: 0, top: 0 },
        { input, left: width, top: 0 },
      ]);
    },
    bled: () => image.extend({ top: reach, bottom: reach, left: reach, right: reach, extendWith: 'mirror' }),
    'left half': () => image.extract({ left: 0, top: 0, width: half, height }),
    'right half': () => image.extract({ left: half, top: 0, width: width - half, height }),
  }[way];
  const { data, info } = await (await made()).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, dots: data };
}

/** A picture without so many dots at each side. */
async function inner({ width, height, dots }: Picture, off: number): Promise<Picture> {
  const size = { width: width - 2 * off, height: height - 2 * off };
  const made = sharp(dots, { raw: { width, height, channels: 3 } }).extract({ left: off, top: off, ...size });
  return { ...size, dots: await made.raw().toBuffer() };
}

test.each(
  Object.keys(DRAWN_BY).flatMap((program) =>
    Object.entries(MADE_FILES).map(([name, bytes]) => [program, name, bytes] as const),
  ),
)(
  '%s: %s turned, cut, cut and filled, joined, bled and split, on pages and on sheets, is a picture of it',
  async (program, _, bytes) => {
    const given = await give(bytes);
    const source = keep(bytes);
    // Poppler takes a page's own unit (UserUnit) for a point; joined pages have none.
    const unit = program === 'poppler' ? given.survey.pages[0]!.userUnit : 1;
    const draw = DRAWN_BY[program]!;
    const [whole, small] = [
      await draw(source, 1, EVEN * unit),
      await draw(source, 1, EVEN * unit * FILLED.x),
    ];
    const withoutBleed = (one: Picture) => inner(one, Math.round(BLEED * whole.width));
    for (const output of [{ kind: 'pages', crop: 'bleed' }, { kind: 'sheets' }] as PdfOutput[]) {
      const made = await make(docketOf(workedOver(given), { scheme: plain }), output, given);
      for (const [n, way] of WAYS.entries()) {
        const ppi = EVEN * (output.kind === 'pages' && way !== 'joined' ? unit : 1);
        let drawn = await draw(made, n + 1, ppi);
        // All sheets have room for the widest bleed of their job.
        if (output.kind === 'sheets' && way !== 'bled') drawn = await withoutBleed(drawn);
        let wanted = await pictured(way === 'filled' ? small : whole, way);
        if (way === 'filled') {
          const top = Math.round((wanted.height - drawn.height) / 2);
          const dots = wanted.dots.subarray(3 * top * wanted.width, 3 * (top + drawn.height) * wanted.width);
          wanted = { width: wanted.width, height: drawn.height, dots };
        }
        expect([output.kind, way, Math.floor(100 * difference(drawn, wanted))]).toEqual([
          output.kind,
          way,
          0,
        ]);
      }
    }
  },
  60_000,
);

// ISO 32000-1, 8.7.3.1: a pattern begins where its form does, however often that is painted.
test.each(Object.entries(MADE_FILES).filter(([name]) => name.includes('pattern')))(
  '%s, four times on one sheet, each as its source (poppler, mutool)',
  async (_, bytes) => {
    const given = await give(bytes);
    const source = keep(bytes);
    const { media } = given.survey.pages[0]!.boxes;
    const [width, height] = [widthOf(media), heightOf(media)];
    const scheme: Flat = {
      ...PLAIN_SCHEMES.flat,
      stock: { width: 2 * width, height: 2 * height },
      copies: { across: 2, up: 2 },
      between: 0,
      work: 'single-side',
      marks: plain.marks,
    };
    const book = bookOf('right', { facing: false });
    const made = await make(docketOf([takeIn(given)], { scheme, book }), { kind: 'sheets' }, given);
    for (const draw of Object.values(DRAWN_BY)) {
      const [sheet, wanted] = [await draw(made, 1, EVEN), await draw(source, 1, EVEN)];
      expect([sheet.width, sheet.height]).toEqual([2 * wanted.width, 2 * wanted.height]);
      for (const left of [0, wanted.width])
        for (const top of [0, wanted.height]) {
          const { width: w, height: h } = wanted;
          const cell = sharp(sheet.dots, { raw: { width: sheet.width, height: sheet.height, channels: 3 } });
          const dots = await cell.extract({ left, top, width: w, height: h }).raw().toBuffer();
          expect([left, top, Math.floor(100 * difference({ width: w, height: h, dots }, wanted))]).toEqual([
            left,
            top,
            0,
          ]);
        }
    }
  },
  60_000,
);

/** Where the list of options stands on the form, in points from the page's upper left corner. */
const LIST = { x0: 40, y0: 240, x1: 240, y1: 302 };
function blank(dots: Buffer, width: number, { x0, y0, x1, y1 }: typeof LIST): Buffer {
  const made = Buffer.from(dots);
  const at = (points: number) => Math.round((points * PPI) / 72);
  for (let y = at(y0); y < at(y1); y++) made.fill(255, 3 * (y * width + at(x0)), 3 * (y * width + at(x1)));
  return made;
}

/** A form with fields of every kind, filled, and annotations that print, that do not, and that are hidden. */
async function filledForm({ appearances }: { appearances: boolean }): Promise<Buffer> {
  const document = await PDFDocument.create();
  const page = document.addPage([400, 500]);
  const form = document.getForm();
  const at = (n: number) => ({ x: 40, y: 450 - 50 * n, width: 200, height: 26 });
  const text = form.createTextField('text');
  text.setText('Fields are filled');
  text.addToPage(page, at(0));
  const check = form.createCheckBox('check');
  check.addToPage(page, { ...at(1), width: 26 });
  check.check();
  const radio = form.createRadioGroup('radio');
  radio.addOptionToPage('a', page, { ...at(2), width: 26 });
  radio.addOptionToPage('b', page, { ...at(2), x: 90, width: 26 });
  radio.select('b');
  const list = form.createDropdown('list');
  list.addOptions(['one', 'two']);
  list.select('two');
  list.addToPage(page, at(3));
  const options = form.createOptionList('options');
  options.addOptions(['first', 'second', 'third']);
  options.select('second');
  options.addToPage(page, { ...at(5), height: 60 });
  form.createButton('button').addToPage('Press', page, at(6));
  const { context } = document;
  const look = (colour: string) =>
    context.register(
      context.stream(`${colour} rg 0 0 100 20 re f`, {
        Type: 'XObject',
        Subtype: 'Form',
        BBox: [0, 0, 100, 20],
      }),
    );
  const annotations: [string, number, string, number[]][] = [
    ['Stamp', 4, '1 0 0', [280, 400, 380, 440]],
    ['FreeText', 4, '0 0.6 0', [280, 330, 380, 380]],
    ['Stamp', 0, '0 0 1', [280, 260, 380, 300]],
    ['Stamp', 6, '0 0 0', [280, 200, 380, 240]],
  ];
  const list0 = page.node.Annots()!;
  for (const [Subtype, F, colour, Rect] of annotations)
    list0.push(
      context.register(
        context.obj({
          Type: 'Annot',
          Subtype,
          F,
          Rect,
          AP: { N: look(colour) },
          Contents: PDFString.of('x'),
          DA: PDFString.of('/Helv 9 Tf'),
        }),
      ),
    );
  if (appearances) return Buffer.from(await document.save());
  form.acroForm.dict.set(PDFName.of('NeedAppearances'), context.obj(true));
  for (const field of [text, list, options])
    for (const { dict } of field.acroField.getWidgets()) dict.delete(PDFName.of('AP'));
  return Buffer.from(await document.save({ updateFieldAppearances: false }));
}

describe.each([true, false])('a filled form, its fields with appearances: %s', (appearances) => {
  test('prints what is meant to print on sheets, copies, joins, and shows it in pictures; all else is left out', async () => {
    const bytes = await filledForm({ appearances });
    const given = await give(bytes);
    expect(given.survey.annotations).toEqual({ print: [0], screen: [0] });
    // As poppler prints it: nothing that only shows on screens.
    const out = keep(bytes);
    tool('pdftocairo', '-pdf', out, `${out}.print.pdf`);
    const wanted = await DRAWN_BY.poppler!(`${out}.print.pdf`, 1, PPI);
    const drawn = async (path: string, page = 1) => DRAWN_BY.poppler!(path, page, PPI);
    // Programs choose how a chosen line of a list is marked, where no appearance says it.
    const differ = async (made: Promise<Picture>) =>
      Math.floor(1000 * difference(unmarked(await made), unmarked(wanted))) / 10;
    const unmarked = ({ dots, ...size }: Picture): Picture =>
      appearances ? { dots, ...size } : { ...size, dots: blank(dots, size.width, LIST) };
    const sheets = await make(docketOf([takeIn(given)], { scheme: plain }), { kind: 'sheets' }, given);
    expect(await differ(drawn(sheets))).toBeLessThan(1);
    const twice = await make(docketOf([takeIn(given), copied]), { kind: 'pages', crop: 'trim' }, given);
    expect(await differ(drawn(twice, 2))).toBeLessThan(1);
    // Joined with its copy, and with its bleed mirrored: within that it is as it was.
    const joined = await drawn(
      await make(
        docketOf([
          takeIn(given),
          copied,
          { id: 'j', kind: 'join', pages: 'all', columns: 1, rows: 2, gap: 0 },
        ]),
        { kind: 'pages', crop: 'trim' },
        given,
      ),
    );
    const upper = { ...joined, height: wanted.height, dots: joined.dots.subarray(0, wanted.dots.length) };
    expect(await differ(Promise.resolve(upper))).toBeLessThan(1);
    const reach = 36;
    const edges = { head: reach, foot: reach, spine: reach, fore: reach };
    const bled = await make(
      docketOf([takeIn(given), { id: 'b', kind: 'bleed', pages: 'all', ...edges, art: 'mirror' }]),
      { kind: 'pages', crop: 'bleed' },
      given,
    );
    // In reading order what is for screens stays on the page; it is printed as its source is.
    tool('pdftocairo', '-pdf', bled, `${bled}.print.pdf`);
    expect(await differ(inner(await drawn(`${bled}.print.pdf`), (reach * PPI) / 72))).toBeLessThan(1);
    const renderer = await startRenderer();
    const { rgba, width, height } = renderer
      .open(bytes)
      .render(0, { x0: 0, y0: 0, x1: 400, y1: 500 }, wanted.width, wanted.height);
    const dots = await sharp(rgba, { raw: { width, height, channels: 4 } })
      .removeAlpha()
      .raw()
      .toBuffer();
    expect(await differ(Promise.resolve({ width, height, dots }))).toBeLessThan(1);
  });
});

test('an indirect length, a word that looks like an end, short names of filters, a page twice: all of it is on pages and on sheets', async () => {
  for (const name of ['indirect-length', 'short-filters-twice', 'filled-form', 'patterns', 'active']) {
    const bytes = caseFile(name);
    const given = await give(bytes);
    const source = keep(bytes);
    for (const output of [{ kind: 'pages', crop: 'trim' }, { kind: 'sheets' }] as PdfOutput[]) {
      const made = await make(docketOf([takeIn(given)], { scheme: plain }), output, given);
      for (let page = 1; page <= given.survey.pages.length; page++)
        for (const draw of Object.values(DRAWN_BY))
          expect([
            name,
            output.kind,
            page,
            Math.floor(100 * difference(await draw(made, page, PPI), await draw(source, page, PPI))),
          ]).toEqual([name, output.kind, page, 0]);
    }
  }
});

test('locked in every way, palettes and titles with brackets, backslashes and line ends come out as they were (qpdf)', async () => {
  // A picture of 8 dots whose colours are ( ) \ CR LF and more.
  const palette = '\\(\\)\\\\\\r\\n\\001\\377\\200 (a(b)c) \\200\\\n\\377\\000';
  const plainFile = writtenPdf(
    [
      '<< /Type /Catalog /Pages 2 0 R >>',
      '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] /Contents 4 0 R /Resources << /XObject << /I 5 0 R >> >> >>',
      '<< /Length 30 >>\nstream\nq 260 0 0 360 20 20 cm /I Do Q\nendstream',
      `<< /Type /XObject /Subtype /Image /Width 3 /Height 2 /BitsPerComponent 8 /ColorSpace [/Indexed /DeviceRGB 5 (${palette})] /Length 12 /Filter /ASCIIHexDecode >>\nstream\n000102030405\nendstream`,
      '<< /Title (A \\(title\\) with \\\\ and \\r\\n) >>',
    ],
    '/Info 6 0 R /ID [<00112233445566778899aabbccddeeff> <00112233445566778899aabbccddeeff>]',
  );
  const source = keep(plainFile);
  const { survey: asItWas } = await give(plainFile);
  for (const how of [['40'], ['128', '--use-aes=n'], ['128', '--use-aes=y'], ['256']]) {
    const locked = `${source}.${how.join('')}.pdf`;
    tool('qpdf', '--allow-weak-crypto', '--encrypt', '', 'owner', ...how, '--', source, locked);
    const given = await give(readBack(locked));
    expect([given.survey.title, given.survey.encryption]).toEqual([asItWas.title, 'owner']);
    for (const output of [{ kind: 'pages', crop: 'trim' }, { kind: 'sheets' }] as PdfOutput[]) {
      const made = await make(docketOf([takeIn(given)], { scheme: plain }), output, given);
      tool('qpdf', '--check', made);
      for (const draw of Object.values(DRAWN_BY))
        expect(difference(await draw(made, 1, PPI), await draw(source, 1, PPI))).toBeLessThan(0.001);
    }
  }
});
