import {
  PDFContext,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNull,
  type PDFObject,
  PDFObjectParser,
  PDFRawStream,
  PDFRef,
  PDFString,
} from '@cantoo/pdf-lib';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { caseFile, MADE_FILES } from '../../../../tests/madeFiles';
import { docketOf } from '../../../../tests/makers';
import { give, keep, make, markedPdf, readBack, tool, writtenPdf } from '../../../../tests/outside';
import { fileObjectsOf } from './fileObjects';
import { loadPdf, rawFileOf, readablePdf } from './load';
import { PageAsItLies } from './pageAsItLies';

const marked = keep(await markedPdf(12));
const variants = ['--object-streams=generate', '--linearize', '--qdf'].map((how) => {
  tool('qpdf', how, marked, `${marked}${how}.pdf`);
  return [how, readBack(`${marked}${how}.pdf`)] as const;
});

test.each([
  ...variants,
  ...Object.entries(MADE_FILES),
  ...['short-filters-twice', 'filled-form', 'patterns', 'active'].map(
    (name) => [name, caseFile(name)] as const,
  ),
])(
  '%s: each object made when it is asked for is what it is when the whole file is read',
  async (_, given) => {
    const { bytes } = await readablePdf(given);
    const { context } = await loadPdf(bytes);
    const whole = await PDFDocument.load(bytes, { updateMetadata: false });
    const reached = rawFileOf(bytes).reached();
    expect(reached.length).toBeGreaterThan(2);
    for (const number of reached) {
      const [one, other] = [context, whole.context].map((each) => each.lookup(PDFRef.of(number)));
      if (!(one instanceof PDFRawStream) || !(other instanceof PDFRawStream)) {
        expect(one?.toString()).toBe(other?.toString());
        continue;
      }
      expect(one.dict.toString()).toBe(other.dict.toString());
      // The library reads a length that stands elsewhere by looking for the end.
      if (!(one.dict.get(PDFName.of('Length')) instanceof PDFRef))
        expect(Buffer.compare(one.getContents(), other.getContents())).toBe(0);
    }
  },
);

test('what nobody asked for goes out as it lies, and what was taken out does not come back', async () => {
  const link =
    '<</Subtype/Link   /Rect [ 0 0 9 9 ] % as it was\n/A<</S/URI/URI(https://larkmoor.example/)>> >>';
  const given = await give(
    writtenPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      '<< /Type /Pages /Kids [3 0 R 6 0 R] /Count 2 >>',
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents 4 0 R /Annots [5 0 R] >>',
      '<< /Length 15 >>\nstream\n0 0 9 9 re f   \nendstream',
      link,
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents 4 0 R /Annots [5 0 R] >>',
    ]),
  );
  const docket = docketOf([
    { id: 't', kind: 'take-in', source: given.hash, name: 'a.pdf', where: { at: 'end' } },
  ]);
  const path = await make(docket, { kind: 'pages', crop: 'trim' }, given);
  expect(readBack(path).toString('latin1')).toContain(link);
  tool('qpdf', '--check', path);

  const { context } = await loadPdf(given.bytes);
  const objects = fileObjectsOf(context)!;
  const ref = PDFRef.of(5);
  expect([objects.asItLies(5) !== undefined, objects.has(ref), objects.asItLies(5, 1)]).toEqual([
    true,
    true,
    undefined,
  ]);
  context.delete(ref);
  expect([context.lookup(ref), objects.asItLies(5), objects.has(ref)]).toEqual([undefined, undefined, false]);
  expect(context.enumerateIndirectObjects().map(([{ objectNumber }]) => objectNumber)).toEqual([
    1, 2, 3, 4, 6,
  ]);
});

/** Pages in which a value is null, and comments and brackets stand where they may; two have the same entries, one has others. */
const ODD_PAGES = [
  String.raw`<</Type/Page/Rotate 90 % /Rotate 0 >>
/Annots[ 5 0 R(a \)/Contents 9 0 R)]/CropBox null/Resources<</Font<</F1 7 0 R>>/Type/Page>>/Contents 4 0 R/BBox<0a2F>>>`,
  '<< /Type /Page /Rotate 0 /Annots null /CropBox [0 0 9 9] /Resources<<>>%>>\n/Contents 9 0 R\n/BBox () >>',
  '<</Parent 3 0 R/Type/Page>>',
];
const NAMES = ['Type', 'Rotate', 'Annots', 'CropBox', 'Resources', 'Contents', 'BBox', 'Parent'].map((name) =>
  PDFName.of(name),
);
const VALUES = [PDFString.of('x'), PDFRef.of(8), PDFNull];

/** The same pages as they lie and as the library reads them, and what is written of them as they lie, read again. */
function bothWays(texts: readonly string[]) {
  const context = PDFContext.create();
  const read = (bytes: Uint8Array) => PDFObjectParser.forBytes(bytes, context).parseObject();
  const maker = { make: (bytes: Uint8Array, start: number) => read(bytes.subarray(start)) };
  const before: PageAsItLies[] = [];
  return texts.map((text) => {
    const bytes = Buffer.from(`1 0 obj ${text} endobj`);
    const lying = PageAsItLies.at(context, bytes, 8, maker, before);
    const written = () => {
      const parts: string[] = [];
      lying!.eachPart(
        (start, end) => parts.push(bytes.toString('latin1', start, end)),
        (name, value) => parts.push(`${name} ${value}`),
      );
      return read(Buffer.from(`<<${parts.join('\n')}>>`)) as PDFDict;
    };
    return { lying, plain: read(bytes.subarray(8)) as PDFDict, written };
  });
}
const told = (dict: PDFDict) => dict.entries().map(String).sort();

/** What can be done with a dictionary, by an entry's name and a value. */
const DEEDS: ((dict: PDFDict, name: PDFName, value: PDFObject) => unknown)[] = [
  (dict, name) => dict.get(name)?.toString(),
  (dict, name) => dict.get(name, true)?.toString(),
  (dict, name) => dict.has(name),
  (dict, name, value) => dict.set(name, value),
  (dict, name) => dict.delete(name),
];

test('pages as they lie are to whoever asks, gives and takes what the library makes of them, and are written as that', () => {
  const done = fc.tuple(
    fc.nat({ max: ODD_PAGES.length - 1 }),
    fc.constantFrom(...DEEDS),
    fc.constantFrom(...NAMES),
    fc.constantFrom(...VALUES),
  );
  fc.assert(
    fc.property(fc.array(done, { maxLength: 16 }), (deeds) => {
      const pages = bothWays(ODD_PAGES);
      for (const [n, deed, name, value] of deeds)
        expect(deed(pages[n]!.lying!, name, value)).toEqual(deed(pages[n]!.plain, name, value));
      for (const { lying, plain, written } of pages) {
        expect(told(written())).toEqual(told(plain));
        expect(lying!.lies).toBe(true);
        expect(told(lying!)).toEqual(told(plain));
        expect(lying!.lies).toBe(false);
        for (const dict of [lying!, plain]) dict.delete(PDFName.of('Type'));
        expect(told(lying!)).toEqual(told(plain));
      }
    }),
    { numRuns: 300 },
  );
});

test('a page of whose names one has characters written as #xx or stands twice is read whole, and so is what is no page', () => {
  for (const text of [
    '<</Type/Page/#52otate 90/Rotat#65 180>>',
    '<</Type/Page/Rotate 90/Rotate 180>>',
    '<</Type/Pages/Kids[]>>',
    '[/Type/Page]',
    '(x)',
  ])
    expect(bothWays([text])[0]!.lying).toBe(undefined);
});
