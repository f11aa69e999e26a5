import { PDFDict, PDFDocument, PDFHexString, PDFName, StandardFonts } from '@cantoo/pdf-lib';
import { describe, expect, test } from 'vitest';
import { keep, tool } from '../../../../tests/outside';
import { surveyPdf } from './survey';

/** A page with the given resources (written as PDF writes them) and content. */
async function pageWith(
  resources: Record<string, unknown>,
  content = '',
  change?: (document: PDFDocument) => void,
): Promise<Uint8Array> {
  const document = await PDFDocument.create({ updateMetadata: false });
  const page = document.addPage([200, 200]);
  page.node.set(PDFName.of('Resources'), document.context.obj(resources as never));
  page.node.set(PDFName.of('Contents'), document.context.register(document.context.flateStream(content)));
  change?.(document);
  return document.save({ useObjectStreams: false });
}
const name = (text: string) => PDFName.of(text);
const tint = { FunctionType: 2, Domain: [0, 1], C0: [0, 0, 0, 0], C1: [1, 1, 1, 1], N: 1 };
const spot = (ink: string) => [name('Separation'), name(ink), name('DeviceCMYK'), tint];
const inksOf = async (bytes: Uint8Array) =>
  (await surveyPdf(bytes)).inks.map(({ name: ink, kind }) => `${kind} ${ink}`);

describe('inks', () => {
  test.each<[string, Record<string, unknown>, string, string[]]>([
    ['colour operators', {}, '1 0 0 rg 0 0 9 9 re f 0.5 G', ['process Grey', 'process RGB']],
    ['operators that only stand in a string', {}, 'BT (1 0 0 rg) Tj <31206B> Tj ET', []],
    [
      'a spot ink with a blank in its name',
      { ColorSpace: { A: spot('House#20Green') } },
      '/A cs 1 scn',
      ['spot House Green'],
    ],
    ['All and None are no inks of their own', { ColorSpace: { A: spot('All'), B: spot('None') } }, '', []],
    [
      'several inks of a DeviceN space',
      {
        ColorSpace: {
          A: [name('DeviceN'), [name('Cyan'), name('Gold'), name('Varnish')], name('DeviceCMYK'), tint],
        },
      },
      '',
      ['process CMYK', 'spot Gold', 'spot Varnish'],
    ],
    [
      'an indexed space',
      { ColorSpace: { A: [name('Indexed'), spot('Rust'), 1, PDFHexString.of('00FF')] } },
      '',
      ['spot Rust'],
    ],
    [
      'a shading',
      { Shading: { S: { ShadingType: 2, ColorSpace: spot('Dawn'), Coords: [0, 0, 1, 1] } } },
      '',
      ['spot Dawn'],
    ],
    ['process names as separations', { ColorSpace: { A: spot('Black') } }, '', ['process CMYK']],
  ])('%s', async (_, resources, content, inks) => {
    expect(await inksOf(await pageWith(resources, content))).toEqual(inks);
  });

  test('inks inside forms and images are found, and a form that holds itself does no harm', async () => {
    const bytes = await pageWith({}, '/F Do', (document) => {
      const { context } = document;
      const image = context.register(
        context.stream('x', {
          Type: 'XObject',
          Subtype: 'Image',
          Width: 1,
          Height: 1,
          BitsPerComponent: 8,
          ColorSpace: spot('Silver') as never,
        }),
      );
      const ref = context.nextRef();
      const form = context.flateStream('0 0 0 1 k /I Do', {
        Type: 'XObject',
        Subtype: 'Form',
        BBox: [0, 0, 9, 9],
        Resources: { XObject: { I: image, F: ref } },
      });
      context.assign(ref, form);
      document.getPage(0).node.set(name('Resources'), context.obj({ XObject: { F: ref } }));
    });
    expect(await inksOf(bytes)).toEqual(['process CMYK', 'spot Silver']);
  });
});

describe('bookmarks', () => {
  test('are read with their depth and page, loops cut', async () => {
    const document = await PDFDocument.create({ updateMetadata: false });
    await document.embedFont(StandardFonts.Helvetica);
    const pages = [document.addPage(), document.addPage(), document.addPage()];
    const { context } = document;
    const item = (title: string, page: number, more: Record<string, unknown> = {}) =>
      context.register(
        context.obj({
          Title: PDFHexString.fromText(title),
          Dest: [pages[page]!.ref, name('Fit')],
          ...more,
        } as never),
      );
    const child = item('Stations', 1);
    const last = item('Fares', 2);
    const first = item('Trains', 0, { First: child, Last: child, Next: last });
    context.lookup(last, PDFDict).set(name('Next'), first);
    document.catalog.set(
      name('Outlines'),
      context.register(context.obj({ First: first, Last: last, Count: 3 })),
    );
    const { bookmarks } = await surveyPdf(await document.save());
    expect(bookmarks).toEqual([
      { title: 'Trains', level: 0, page: 0 },
      { title: 'Stations', level: 1, page: 1 },
      { title: 'Fares', level: 0, page: 2 },
    ]);
  });
});

test('page count, size and version agree with poppler', async () => {
  const document = await PDFDocument.create({ updateMetadata: false });
  for (const [width, height] of [
    [300, 400],
    [612, 792],
    [100.5, 250.25],
  ] as const)
    document.addPage([width, height]);
  const path = keep(await document.save());
  const survey = await surveyPdf(await document.save());
  const info = tool('pdfinfo', '-f', '1', '-l', '3', path);
  expect(info).toMatch(new RegExp(`Pages:\\s+${survey.pages.length}`));
  expect(info).toContain(`PDF version:     ${survey.pdfVersion}`);
  survey.pages.forEach(({ boxes }, i) => {
    const [, width, height] = new RegExp(`Page\\s+${i + 1} size:\\s+([\\d.]+) x ([\\d.]+) pts`).exec(info)!;
    expect([boxes.media.x1, boxes.media.y1]).toEqual([
      expect.closeTo(Number(width), 2),
      expect.closeTo(Number(height), 2),
    ]);
  });
});
