import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { RawFile, rebased } from './rawFile';
import {
  dictEntry,
  eachReference,
  RawUnfit,
  readArray,
  readDict,
  readInteger,
  readReference,
  skipSpace,
  skipValue,
  textOf,
} from './scan';

const bytes = (text: string) => Buffer.from(text, 'latin1');

describe('reading syntax as places (ISO 32000-1, 7.2 and 7.3)', () => {
  test.each([
    ['12 rest', '12'],
    ['-3.5 rest', '-3.5'],
    ['12 0 R rest', '12 0 R'],
    ['12 0 Rest', '12'],
    ['/Name#20here/Next', '/Name#20here'],
    ['(a (nested) \\) string) rest', '(a (nested) \\) string)'],
    ['<48 65> rest', '<48 65>'],
    ['[1 [2 (])] /N<</A 1>>] rest', '[1 [2 (])] /N<</A 1>>]'],
    ['<</A[1]/B<</C(>>)>>/D<3E3E>>> rest', '<</A[1]/B<</C(>>)>>/D<3E3E>>>'],
    ['<< % a comment >> \n /A 1 >> rest', '<< % a comment >> \n /A 1 >>'],
    ['true rest', 'true'],
    ['null]', 'null'],
    ['+.5 rest', '+.5'],
    ['4.]', '4.'],
  ])('%j begins with %j', (text, value) => {
    expect(text.slice(0, skipValue(bytes(text), 0))).toBe(value);
  });

  test.each([
    '',
    '(no end',
    '<</A 1',
    '[1 2',
    '<41',
    '<< 1 2 >>',
    ')',
    '--5',
    '1.2.3',
    'nul',
    '12x',
    '[R]',
    '.',
  ])('%j is unfit', (text) => {
    expect(() => {
      skipValue(bytes(text), 0);
      readDict(bytes(text), 0);
    }).toThrow(RawUnfit);
  });

  test('entries, items, numbers and references are found where they are', () => {
    const text = '<</Type/Page /Kids [1 0 R 2 0 R\n(3 0 R) 44] /Length 7>>';
    const dict = readDict(bytes(text), 0);
    expect([...dict].map(([key, range]) => [key, textOf(bytes(text), range)])).toEqual([
      ['Type', '/Page'],
      ['Kids', '[1 0 R 2 0 R\n(3 0 R) 44]'],
      ['Length', '7'],
    ]);
    expect(dictEntry(bytes(text), 0, 'Length')).toEqual(dict.get('Length'));
    expect(dictEntry(bytes(text), 0, 'Len')).toBeUndefined();
    // As qpdf says: the last occurrence overrides earlier ones.
    expect(textOf(bytes('<</A 1/B 2/A 3>>'), dictEntry(bytes('<</A 1/B 2/A 3>>'), 0, 'A')!)).toBe('3');
    const items = readArray(bytes(text), dict.get('Kids')![0]).map((range) => textOf(bytes(text), range));
    expect(items).toEqual(['1 0 R', '2 0 R', '(3 0 R)', '44']);
    expect(readReference(bytes('7 2 R'), 0)).toEqual({ number: 7, generation: 2, end: 5 });
    expect(readReference(bytes('7 2 Rx'), 0)).toBeUndefined();
    expect(readInteger(bytes('12x'), 0)).toBeUndefined();
    expect(skipSpace(bytes('  % one\r\n% two\n x'), 0)).toBe(16);
  });

  test('references are met wherever they are nested, and never inside strings or names', () => {
    const text = '<</A 1 0 R/B[2 0 R(3 0 R)<34>4 0 R]/C<</D 5 6 R>>/E(\\(6 0 R)/7 0 R 8 9 1 0 R>>';
    const met: string[] = [];
    eachReference(bytes(text), [0, text.length], (number, generation) => met.push(`${number} ${generation}`));
    expect(met).toEqual(['1 0', '2 0', '4 0', '5 6', '1 0']);
    expect(rebased(bytes(text), [0, text.length], 100, () => undefined).toString()).toBe(
      '<</A 101 0 R/B[102 0 R(3 0 R)<34>104 0 R]/C<</D 105 0 R>>/E(\\(6 0 R)/7 0 R 8 9 101 0 R>>',
    );
  });

  test('any value that is written is skipped whole', () => {
    const { value } = fc.letrec<{ value: string }>((tie) => ({
      value: fc.oneof(
        { maxDepth: 4 },
        fc.integer().map(String),
        fc.constantFrom('true', 'null', '/Name', '(text \\( here)', '<0aF>', '12 0 R', '.5'),
        fc.array(tie('value'), { maxLength: 4 }).map((items) => `[${items.join(' ')}]`),
        fc
          .array(tie('value'), { maxLength: 4 })
          .map((items) => `<<${items.map((item, i) => `/K${i} ${item}`).join('')}>>`),
      ),
    }));
    fc.assert(
      fc.property(value, (text) => {
        expect(skipValue(bytes(`${text} /After`), 0)).toBe(text.length);
      }),
    );
  });
});

describe('a file read where it lies', () => {
  /** A file of the given objects with a true cross-reference table. */
  const file = (objects: string[], trailer = '') => {
    let text = '%PDF-1.7\n';
    const places = objects.map((object, i) => {
      const at = text.length;
      text += `${i + 1} 0 obj\n${object}\nendobj\n`;
      return at;
    });
    const rows = places.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('');
    const size = objects.length + 1;
    const start = text.length;
    return bytes(
      `${text}xref\n0 ${size}\n0000000000 65535 f \n${rows}trailer\n<< /Size ${size} /Root 1 0 R ${trailer} >>\nstartxref\n${start}\n%%EOF`,
    );
  };
  const catalog = '<< /Type /Catalog /Pages 2 0 R >>';

  test('pages with what they inherit, and streams whose length stands elsewhere', () => {
    const raw = new RawFile(
      file([
        catalog,
        '<< /Kids [3 0 R] /Resources << /Font 9 0 R >> >>',
        '<< /Type /Page /Contents 4 0 R >>',
        '<< /Length 5 0 R >>\nstream\r\nBT ET\nendstream',
        '5',
      ]),
    );
    const resources = raw.page(0).resources!;
    expect(textOf(resources.bytes, resources.range)).toBe('<< /Font 9 0 R >>');
    const stream = raw.object(4)!;
    expect(textOf(stream.bytes, stream.data!)).toBe('BT ET');
    expect(Buffer.from(raw.unpack(stream)).toString()).toBe('BT ET');
    expect(raw.object(77)).toBeUndefined();
  });

  test.each([
    ['encrypted', () => file([catalog], '/Encrypt << >>')],
    ['without a table', () => bytes('%PDF-1.7 nothing more')],
    ['with a table that lies', () => Buffer.concat([bytes('moved '), file([catalog, '<< /Kids [] >>'])])],
    ['whose pages go round', () => file([catalog, '<< /Kids [2 0 R] >>'])],
    ['whose references go round', () => file(['1 0 R'])],
    [
      'whose stream ends elsewhere',
      () => file([catalog, '<< /Kids [3 0 R] >>', '<< /Length 2 >>\nstream\nlonger\nendstream']),
    ],
  ])('a file %s is unfit', (_, make) => {
    expect(() => {
      const raw = new RawFile(make());
      raw.leaves();
      for (let n = 1; n <= 3; n++) raw.object(n);
    }).toThrow(RawUnfit);
  });
});
