import { PDFDocument, PDFName, PDFRawStream, PDFRef } from '@cantoo/pdf-lib';
import { expect, test } from 'vitest';
import { caseFile, MADE_FILES } from '../../../../tests/madeFiles';
import { docketOf } from '../../../../tests/makers';
import { give, keep, make, markedPdf, readBack, tool, writtenPdf } from '../../../../tests/outside';
import { fileObjectsOf } from './fileObjects';
import { loadPdf, rawFileOf, readablePdf } from './load';

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
  expect([objects.asItLies(ref) !== undefined, objects.has(ref), objects.asItLies(PDFRef.of(5, 1))]).toEqual([
    true,
    true,
    undefined,
  ]);
  context.delete(ref);
  expect([context.lookup(ref), objects.asItLies(ref), objects.has(ref)]).toEqual([
    undefined,
    undefined,
    false,
  ]);
  expect(context.enumerateIndirectObjects().map(([{ objectNumber }]) => objectNumber)).toEqual([
    1, 2, 3, 4, 6,
  ]);
});
