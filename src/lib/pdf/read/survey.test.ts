import { execFileSync } from 'node:child_process';
import { deflateSync } from 'node:zlib';
import { describe, expect, test } from 'vitest';
import { mm } from '../../core/measure/unit';
import { expandLabels, formatNumber, labelRuns } from '../../core/pages/pageLabels';
import { drawCover, drawInterior } from '../../../../demo/timetable';
import { keep, markedPdf, readBack, tool, writtenPdf } from '../../../../tests/outside';
import { surveyPdf } from './survey';
import { tidyPdf } from './tidy';

const written = (...objects: string[]) => writtenPdf(objects);
const catalog = '<< /Type /Catalog /Pages 2 0 R >>';

describe('survey', () => {
  test('boxes: inherited, indirect, swapped corners, turned, in units of their own', async () => {
    const { pages } = await surveyPdf(
      written(
        catalog,
        '<< /Type /Pages /Count 3 /Kids [3 0 R 4 0 R 5 0 R] /MediaBox 6 0 R /Rotate -270 >>',
        '<< /Type /Page /Parent 2 0 R >>',
        '<< /Type /Page /Parent 2 0 R /Rotate 0 /TrimBox [590 832 10 10] /BleedBox [0 0 9000 9000] /CropBox [-900 -900 -800 -800] >>',
        '<< /Type /Page /Parent 2 0 R /Rotate 450 /UserUnit 2 /MediaBox [100 50 300 150] /TrimBox [110 55 290 145] >>',
        '[600 0 0 7 0 R]',
        '842',
      ),
    );
    expect(pages[0]!.boxes.media).toEqual({ x0: 0, y0: 0, x1: 842, y1: 600 });
    expect(pages[0]).toMatchObject({ rotate: 90, given: ['media'] });
    expect(pages[1]!.boxes).toMatchObject({
      trim: { x0: 10, y0: 10, x1: 590, y1: 832 },
      bleed: { x0: 0, y0: 0, x1: 600, y1: 842 },
      crop: { x1: 600, y1: 842 },
    });
    expect(pages[1]!.given).toEqual(['media', 'bleed', 'trim']);
    // 200 × 100 units of 2 pt, turned by 90: 200 × 400 pt; the trim 10 units from the sides and 5 from head and foot.
    expect(pages[2]).toMatchObject({
      rotate: 90,
      userUnit: 2,
      boxes: { media: { x1: 200, y1: 400 }, trim: { x0: 10, y0: 20, x1: 190, y1: 380 } },
    });
  });

  test('facts of the demo: sizes, inks, labels, producer', async () => {
    const [interior, cover] = [
      await surveyPdf(await drawInterior()),
      await surveyPdf(await drawCover('front')),
    ];
    expect(interior).toMatchObject({
      encryption: 'none',
      producer: 'Folder demo',
      inks: [{ name: 'CMYK', kind: 'process' }],
    });
    expect(interior.pages).toHaveLength(12);
    expect(interior.pages.map((page) => page.label)).toEqual([
      '1',
      '2',
      '3',
      '4',
      '5',
      '6',
      '7',
      '8',
      '9',
      '10',
      '11',
      '12',
    ]);
    expect(cover.pages[0]!.boxes.trim).toMatchObject({
      x0: expect.closeTo(mm(3)),
      x1: expect.closeTo(mm(151)),
    });
  });

  /** Pages of one file: the entries of each, and one stream of content or more. */
  const pagesOf = (things: readonly string[], pages: readonly [entries: string, ...content: string[]][]) => {
    const stream = (text: string, dict = '') =>
      `<< ${dict} /Length ${text.length} >>\nstream\n${text}\nendstream`;
    const objects = [...things];
    const kids = pages.map(([entries, ...content]) => {
      const parts = content.map((text) => `${2 + objects.push(stream(text))} 0 R`);
      return `${2 + objects.push(`<< /Type /Page /Parent 2 0 R ${entries} /Contents [${parts.join(' ')}] >>`)} 0 R`;
    });
    const tree = `<< /Type /Pages /Count ${kids.length} /Kids [${kids.join(' ')}] /MediaBox [0 0 200 300] >>`;
    return surveyPdf(written(catalog, tree, ...objects));
  };
  const image = (dot: string) =>
    `<< /Type /XObject /Subtype /Image /Width 1 /Height 1 /ColorSpace /DeviceGray /BitsPerComponent 8 /Length 1 >>\nstream\n${dot}\nendstream`;

  test('content is told apart by what it says and by what it draws, in however many streams', async () => {
    const [one, other] = [3, 4].map((n) => `/Resources << /XObject << /Im ${n} 0 R >> >>`);
    const scan = 'q 200 0 0 300 0 0 cm /Im Do Q';
    const { contents } = await pagesOf(
      [image('a'), image('b')],
      [
        [one!, scan],
        [other!, scan],
        [one!, scan],
        [one!, 'q 200 0 0 300 9 0 cm /Im Do Q'],
        [one!, 'q 200 0 0 300 0 0 cm', '/Im Do Q'],
        [one!, 'q 200 0 0 300 0 0 cm\n/Im Do Q\n'],
        [one!],
      ],
    );
    const [first, second, again, moved, inTwo, joined, empty] = contents!;
    expect(again).toBe(first);
    expect(inTwo).toBe(joined);
    expect(empty).toBe(0);
    expect(new Set([first, second, moved, inTwo, empty]).size).toBe(5);
  });

  test('a page lacks what its content names and the file does not have; what no content names is not missed', async () => {
    const font = '<< /Type /Font /Subtype /TrueType /BaseFont /F /FontDescriptor 4 0 R >>';
    const descriptor = '<< /Type /FontDescriptor /FontName /F /Flags 4 /FontFile2 99 0 R >>';
    const plain = '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>';
    const text = 'BT /F 9 Tf 20 20 Td (A) Tj ET';
    const fonts = (entry: string) => `/Resources << /Font << /F ${entry} /G 5 0 R >> >>`;
    const { pages, contents } = await pagesOf(
      [font, descriptor, plain],
      [
        [fonts('5 0 R'), text],
        [fonts('99 0 R'), text],
        [fonts('3 0 R'), text],
        [fonts('99 0 R'), text.replace('/F', '/G')],
        ['/Resources << /Font 99 0 R >>', text],
        ['/Resources << /XObject << /X 99 0 R >> >>', '/X Do'],
        ['/Resources << /XObject << /X 99 0 R >> >>', '0 0 9 9 re f'],
        ['/Resources << /XObject << /F 99 0 R >> /ExtGState 99 0 R /Font << /F 5 0 R >> >>', text],
      ],
    );
    expect(pages.map(({ incomplete }) => !!incomplete)).toEqual([
      false,
      true,
      true,
      false,
      true,
      true,
      false,
      false,
    ]);
    expect(contents!.map((sum) => sum === null)).toEqual(pages.map(({ incomplete }) => !!incomplete));
  });

  test('a file with an owner password only is read; one that wants a password is refused (made by qpdf)', async () => {
    const plain = keep(await markedPdf(3));
    for (const [user, key] of [
      ['', '128'],
      ['', '256'],
      ['secret', '256'],
    ]) {
      const locked = `${plain}.${key}.pdf`;
      tool(
        'qpdf',
        '--encrypt',
        user!,
        'owner',
        key!,
        ...(key === '128' ? ['--use-aes=y'] : []),
        '--',
        plain,
        locked,
      );
      if (user) {
        await expect(surveyPdf(readBack(locked))).rejects.toMatchObject({ code: 'needs-password' });
        await expect(tidyPdf(readBack(locked), false, 'wrong')).rejects.toMatchObject({
          code: 'needs-password',
        });
        const opened = await surveyPdf(await tidyPdf(readBack(locked), false, user));
        expect(opened.pages).toHaveLength(3);
      } else
        expect(await surveyPdf(readBack(locked))).toMatchObject({
          encryption: 'owner',
          pages: { length: 3 },
        });
    }
  });

  test('a damaged cross-reference table does no harm; what cannot be read is refused with its reason', async () => {
    const whole = Buffer.from(await markedPdf(4));
    const noTable = Buffer.from(whole.toString('latin1').replace(/startxref\n\d+/, 'startxref\n7'), 'latin1');
    expect((await surveyPdf(noTable)).pages).toHaveLength(4);
    const refused = async (bytes: Uint8Array) =>
      surveyPdf(bytes).then(
        () => 'taken',
        (error: { code: string }) => error.code,
      );
    expect(await refused(new Uint8Array())).toBe('empty-file');
    expect(await refused(Buffer.from('GIF89a and so on'))).toBe('not-a-pdf');
    expect(await refused(Buffer.from('%PDF-1.7\nthe rest is missing'))).toBe('damaged');
    expect(await refused(whole.subarray(0, whole.length / 2))).toMatch(/damaged|page-unreadable/);
    expect(await refused(written(catalog, '<< /Type /Pages /Count 0 /Kids [] >>'))).toBe('no-pages');
    expect(await refused(written(catalog, '<< /Type /Pages /Count 1 /Kids [2 0 R] >>'))).toBe(
      'page-unreadable',
    );
    expect(await refused(written(catalog, '<< /Type /Pages /Count 1 /Kids [9 0 R] >>'))).toBe(
      'page-unreadable',
    );
    expect(
      await refused(written(catalog, '<< /Type /Pages /Count 1 /Kids [3 0 R] >>', '<< /Type /Page >>')),
    ).toBe('bad-page-box');
    expect(
      await refused(
        written(
          catalog,
          '<< /Type /Pages /Count 1 /Kids [3 0 R] >>',
          '<< /Type /Page /MediaBox [5 5 5 900] >>',
        ),
      ),
    ).toBe('bad-page-box');
    // Annex C.2: 14,400 units of 1/72 in at most; a page of 200 in is one still.
    for (const [box, code] of [
      ['/MediaBox [0 0 14400 14400]', 'taken'],
      ['/MediaBox [0 0 14401 90]', 'page-too-large'],
      ['/MediaBox [0 0 1000000000000 90]', 'page-too-large'],
      ['/MediaBox [1000000000000 0 1000000000100 90]', 'page-too-large'],
      ['/MediaBox [0 0 1440 90] /UserUnit 11', 'page-too-large'],
    ] as const)
      expect(
        await refused(
          written(catalog, '<< /Type /Pages /Count 1 /Kids [3 0 R] >>', `<< /Type /Page ${box} >>`),
        ),
      ).toBe(code);
    const bomb = deflateSync(Buffer.alloc(300 * 1024 * 1024));
    const packed = written(
      catalog,
      '<< /Type /Pages /Count 1 /Kids [3 0 R] >>',
      '<< /Type /Page /MediaBox [0 0 9 9] /Contents 4 0 R >>',
      `<< /Length ${bomb.length} /Filter /FlateDecode >>\nstream\n${bomb.toString('latin1')}\nendstream`,
    );
    expect(await refused(packed)).toBe('unpacks-too-large');
  });
});

describe('page labels', () => {
  test('the example of ISO 32000-1, 12.4.2', () => {
    const runs = [
      { from: 0, style: 'r' as const, prefix: '', start: 1 },
      { from: 4, style: 'D' as const, prefix: '', start: 1 },
      { from: 7, style: 'D' as const, prefix: 'A-', start: 8 },
    ];
    const labels = expandLabels(runs, 9);
    expect(labels).toEqual(['i', 'ii', 'iii', 'iv', '1', '2', '3', 'A-8', 'A-9']);
    expect(labelRuns(labels as string[])).toEqual(runs);
  });

  test('letters repeat after z (table 159); any labels come back from their runs', () => {
    expect([1, 26, 27, 52, 53].map((n) => formatNumber(n, 'a'))).toEqual(['a', 'z', 'aa', 'zz', 'aaa']);
    const odd = ['', '', 'Cover', '007', 'x', 'xi', 'mix', 'IIII', '9', '10', '12', 'B-1'];
    expect(expandLabels(labelRuns(odd), odd.length)).toEqual(odd);
  });

  test('roman numerals are those of PostgreSQL', { skip: !process.env.DATABASE_URL }, () => {
    const sql = "select string_agg(trim(to_char(n, 'RN')), ' ' order by n) from generate_series(1, 3999) n";
    const theirs = execFileSync('psql', ['-AtX', '-c', sql, process.env.DATABASE_URL!], { encoding: 'utf8' })
      .trim()
      .split(' ');
    expect(theirs).toHaveLength(3999);
    expect(theirs.map((_, i) => formatNumber(i + 1, 'R'))).toEqual(theirs);
  });
});
