import fc from 'fast-check';
import { deflateSync } from 'node:zlib';
import { expect, test } from 'vitest';
import { docketOf } from '../../../../tests/makers';
import { give, make, tool, writtenPdf, keep } from '../../../../tests/outside';
import { PLAIN_SCHEMES } from '../../core/sheets/schemes';
import { workOut } from '../../core/checks';
import { inflated } from './inflate';

const lines = (from: number) =>
  Array.from({ length: 400 }, (_, n) => `1 0 0 1 ${((n + from) * 7919) % 500} ${n} cm`).join('\n');

test('of packed data that are cut short what is there is seen, and nothing that was not', () => {
  fc.assert(
    fc.property(fc.nat({ max: 9999 }), fc.double({ min: 0, max: 0.99, noNaN: true }), (seed, share) => {
      const plain = Buffer.from(lines(seed));
      const packed = deflateSync(plain);
      expect(inflated(packed)).toEqual({ bytes: plain, whole: true });
      // Without its check sum nothing is missing; with another one something is not as it was.
      expect(inflated(packed.subarray(0, -4))).toEqual({ bytes: plain, whole: true });
      const other = Buffer.from(packed);
      other[other.length - 1]! ^= 255;
      expect(inflated(other)).toEqual({ bytes: plain, whole: false });
      const cut = inflated(packed.subarray(0, Math.floor(share * (packed.length - 8))));
      expect(cut.whole && cut.bytes.length > 0).toBe(false);
      expect(Buffer.compare(cut.bytes, plain.subarray(0, cut.bytes.length))).toBe(0);
      if (share > 0.5) expect(cut.bytes.length).toBeGreaterThan(plain.length / 4);
    }),
    { numRuns: 40 },
  );
});

const HELVETICA = '<< /Font << /F << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >> >>';

test.each([
  ['cut short', (packed: Buffer) => packed.subarray(0, packed.length >> 1)],
  [
    'damaged where it says how it is packed',
    (packed: Buffer) => Buffer.concat([Buffer.from([0x0d]), packed.subarray(1)]),
  ],
])(
  'a page of whose two streams one is %s is said to lack something, and shows on its sheet what it shows (poppler)',
  async (_, hurt) => {
    const text = (word: string) => deflateSync(`BT /F 20 Tf 20 100 Td (${word}) Tj ET ${lines(1)} `);
    const stream = (data: Buffer) =>
      Buffer.concat([
        Buffer.from(`<< /Length ${data.length} /Filter /FlateDecode >>\nstream\n`),
        data,
        Buffer.from('\nendstream'),
      ]);
    const bytes = writtenPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      `<< /Type /Pages /Kids [3 0 R 6 0 R] /Count 2 /Resources ${HELVETICA} >>`,
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents [4 0 R 5 0 R] >>',
      stream(text('Before')),
      stream(hurt(text('Behind'))),
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 300] /Contents 5 0 R >>',
    ]);
    const given = await give(bytes);
    expect(given.survey.pages).toMatchObject([{ incomplete: true }, { incomplete: true }]);
    expect(given.survey.pages.some(({ empty }) => empty)).toBe(false);
    const docket = docketOf(
      [{ id: 't', kind: 'take-in', source: given.hash, name: 'a.pdf', where: { at: 'end' } }],
      { scheme: { ...PLAIN_SCHEMES.stitched, stock: { width: 900, height: 700 } } },
    );
    const { findings } = workOut(docket, { [given.hash]: given.survey });
    expect(findings).toContainEqual(expect.objectContaining({ code: 'page-broken', level: 'stop' }));
    const words = (path: string) => tool('pdftotext', path, '-').match(/\w+/g)?.sort();
    const shown = words(keep(bytes));
    expect(shown).toContain('Before');
    for (const output of [{ kind: 'sheets' }, { kind: 'pages', crop: 'trim' }] as const)
      expect(words(await make(docket, output, given))).toEqual(shown);
  },
);

test('a damaged form is missed on the pages that draw it, itself or by another form, and on no other page that names it', async () => {
  const stream = (dict: string, text: string, hurt = false) => {
    const packed = deflateSync(text);
    const data = hurt ? packed.subarray(0, packed.length >> 1) : packed;
    return Buffer.concat([
      Buffer.from(`<< ${dict} /Length ${data.length} /Filter /FlateDecode >>\nstream\n`),
      data,
      Buffer.from('\nendstream'),
    ]);
  };
  const form = '/Type /XObject /Subtype /Form /BBox [0 0 200 300]';
  const around = '/Resources << /XObject << /Bad 4 0 R >> >>';
  // One begins to draw in its own stream and ends in the next, which all have.
  const drawn = ['/Bad Do', '/Outer Do', 'q /Bad', '/Good Do', '/Plain Do', '/Plain'];
  const { survey } = await give(
    writtenPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      `<< /Type /Pages /Kids [${drawn.map((_, n) => `${8 + 2 * n} 0 R`).join(' ')}] /Count ${drawn.length} /MediaBox [0 0 200 300] /Resources 3 0 R >>`,
      '<< /XObject << /Bad 4 0 R /Outer 5 0 R /Good 6 0 R /Plain 7 0 R >> >>',
      stream(`${form} /Resources << >>`, lines(1), true),
      stream(`${form} ${around}`, `q /Bad Do Q ${lines(1)}`),
      stream(`${form} ${around}`, lines(1)),
      stream(`${form} /Resources << >>`, lines(1)),
      ...drawn.flatMap((text, n) => [
        `<< /Type /Page /Parent 2 0 R /Contents [${9 + 2 * n} 0 R ${8 + 2 * drawn.length} 0 R] >>`,
        stream('', text),
      ]),
      stream('', 'Do'),
    ]),
  );
  expect(survey.pages.map(({ incomplete }) => !!incomplete)).toEqual([true, true, true, false, false, false]);
});
