import fc from 'fast-check';
import { spawnSync } from 'node:child_process';
import { expect, test } from 'vitest';
import { caseFile, MADE_FILES } from '../../../../tests/madeFiles';
import { give, keep, make, markedPdf, readBack, tool, writtenPdf } from '../../../../tests/outside';
import { docketOf, stepsOf } from '../../../../tests/makers';
import { PLAIN_SCHEMES } from '../../core/sheets/schemes';
import { PdfError } from '../objects/pdfError';
import { surveyPdf } from './survey';

/** How many pages poppler, qpdf and mutool find; those that find any. */
function pagesFound(bytes: Uint8Array): number[] {
  const path = keep(bytes, 'changed.pdf');
  const said = (program: string, ...args: string[]) =>
    spawnSync(program, [...args, path], { encoding: 'utf8' }).stdout;
  return [
    /^Pages:\s+(\d+)/m.exec(said('pdfinfo'))?.[1],
    /^(\d+)$/m.exec(said('qpdf', '--show-npages'))?.[1],
    /^Pages:\s+(\d+)/m.exec(said('mutool', 'info'))?.[1],
  ].flatMap((pages) => (Number(pages) ? [Number(pages)] : []));
}

const marked = keep(await markedPdf(3));
const variants = ['--object-streams=generate', '--linearize', '--qdf'].map((how) => {
  tool('qpdf', how, marked, `${marked}${how}.pdf`);
  return readBack(`${marked}${how}.pdf`);
});
tool('qpdf', '--encrypt', '', 'owner', '256', '--', marked, `${marked}.locked.pdf`);
const files = [
  ...variants,
  readBack(`${marked}.locked.pdf`),
  ...Object.values(MADE_FILES),
  ...['indirect-length', 'short-filters-twice', 'filled-form', 'patterns', 'active'].map(caseFile),
];

/** A file with some of its bytes changed, left out, or put in. */
const changed = fc
  .record({
    file: fc.constantFrom(...files),
    changes: fc.array(
      fc.record({
        at: fc.nat({ max: 999_999 }),
        with: fc.oneof(
          fc.uint8Array({ minLength: 1, maxLength: 4 }),
          fc
            .constantFrom('endobj', '<<', '>>', '0 R', 'stream', '(', '/Kids', '99999999999', '-1')
            .map((word) => Buffer.from(word)),
        ),
        over: fc.nat({ max: 6 }),
      }),
      { minLength: 1, maxLength: 4 },
    ),
    cut: fc.oneof(
      { weight: 5, arbitrary: fc.constant(null) },
      { weight: 1, arbitrary: fc.double({ min: 0.3, max: 1, noNaN: true }) },
    ),
  })
  .map(({ file, changes, cut }) => {
    let bytes = Buffer.from(file);
    for (const { at, with: put, over } of changes) {
      const from = 9 + (at % (bytes.length - 10));
      bytes = Buffer.concat([bytes.subarray(0, from), put, bytes.subarray(from + over)]);
    }
    return cut === null ? bytes : bytes.subarray(0, Math.floor(cut * bytes.length));
  });

// The same changes each time; others with FUZZ_SEED.
test('whatever is changed in a file: it is read as other programs read it, said to be rebuilt, or refused with a reason', async () => {
  let taken = 0;
  await fc.assert(
    fc.asyncProperty(changed, async (bytes) => {
      const survey = await surveyPdf(bytes).catch((error: unknown) => {
        if (error instanceof PdfError) return undefined;
        throw error;
      });
      if (!survey) return;
      taken++;
      // What had to be put together anew may have other pages to another reader: it is told.
      if (!survey.rebuilt) expect(pagesFound(bytes)).toContain(survey.pages.length);
    }),
    { numRuns: 250, interruptAfterTimeLimit: 40_000, seed: Number(process.env.FUZZ_SEED ?? 1) },
  );
  expect(taken).toBeGreaterThan(50);
});

test('a damaged file of whose pages nothing is left is refused; one whose pages can be drawn is taken and said to be rebuilt', async () => {
  const file = (contents: string) =>
    writtenPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] ${contents} >>`,
      '<< /Length 21 >>\nstream\n20 20 90 90 re f 0 g \nendstream',
    ]);
  const hurt = (bytes: Buffer) =>
    Buffer.from(bytes.toString('latin1').replace(/startxref[\s\S]*$/, ''), 'latin1');
  expect(await surveyPdf(hurt(file('/Contents 4 0 R')))).toMatchObject({ rebuilt: true, pages: [{}] });
  await expect(surveyPdf(hurt(file('')))).rejects.toMatchObject({ code: 'damaged' });
  expect(await surveyPdf(file(''))).toMatchObject({ pages: [{ empty: true }] });
});

test('forms that refer to themselves and to each other, with patterns, drawn in several places: written once each (qpdf)', async () => {
  const many = Array.from({ length: 12 }, (_, n) => `/F${n} ${6 + (n % 2)} 0 R`).join(' ');
  const form = `<< /Type /XObject /Subtype /Form /BBox [0 0 200 300] /Resources << /Pattern << /P 5 0 R >> /XObject << ${many} >> >> /Length 35 >>\nstream\n/Pattern cs /P scn 10 10 90 90 re f\nendstream`;
  const bytes = writtenPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents 4 0 R /Resources << /XObject << /F0 6 0 R >> >> >>',
    '<< /Length 6 >>\nstream\n/F0 Do\nendstream',
    '<< /Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 9 9] /XStep 9 /YStep 9 /Resources << >> /Length 14 >>\nstream\n0 0 4 4 re f  \nendstream',
    form,
    form,
  ]);
  const given = await give(bytes);
  const steps = stepsOf([
    { kind: 'take-in', source: given.hash, name: 'a.pdf', where: { at: 'end' } },
    { kind: 'copy', pages: '1', where: { at: 'end' } },
  ]);
  const scheme = { ...PLAIN_SCHEMES.stitched, stock: { width: 900, height: 700 } };
  const sheets = await make(docketOf(steps, { scheme }), { kind: 'sheets' }, given);
  const join = stepsOf([{ kind: 'join', pages: 'all', columns: 2, rows: 1, gap: 0 }]);
  const joined = await make(docketOf([...steps, ...join]), { kind: 'pages', crop: 'trim' }, given);
  for (const path of [sheets, joined]) {
    tool('qpdf', '--check', path);
    expect(readBack(path).length).toBeLessThan(20_000);
  }
});
