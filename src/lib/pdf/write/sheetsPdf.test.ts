import { PDFArray, PDFDocument, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import { beforeAll, describe, expect, test } from 'vitest';
import { mm } from '../../core/measure/unit';
import { DEFAULT_SCHEME } from '../../core/sheets/schemes';
import { docketOf } from '../../../../tests/makers';
import { drawCover, drawInterior } from '../../../../demo/timetable';
import {
  boxesOf,
  give,
  keep,
  make,
  markedPdf,
  readBack,
  tool,
  wordsOf,
  type Given,
} from '../../../../tests/outside';
import { expectPlanned } from '../../../../tests/planned';

const takeIn = (given: Given, take?: string, id = 't') => ({
  id,
  kind: 'take-in' as const,
  source: given.hash,
  name: 'x.pdf',
  where: { at: 'end' as const },
  ...(take ? { take } : {}),
});
let marked: Given;
beforeAll(async () => {
  marked = await give(await markedPdf(64));
});

describe('sheet PDF', () => {
  test('every page stands in its cell, upright and in order, for 4 to 64 pages and both turning edges (poppler, qpdf)', async () => {
    for (let pages = 4; pages <= 64; pages += pages < 16 ? 1 : 12)
      for (const turn of ['short-edge', 'long-edge'] as const)
        await expectPlanned(
          docketOf([takeIn(marked, `1-${pages}`)], {
            scheme: { ...DEFAULT_SCHEME, turn, pad: pages % 2 ? 'end' : 'before-last' },
          }),
          marked,
        );
  });

  test('boxes are the sheet, and nest (poppler)', async () => {
    const bleed = {
      id: 'b',
      kind: 'bleed' as const,
      pages: 'all',
      head: mm(3),
      foot: mm(3),
      spine: mm(3),
      fore: mm(3),
    };
    const { path } = await expectPlanned(docketOf([takeIn(marked, '1-8'), bleed]), marked);
    for (const { MediaBox, BleedBox, TrimBox } of boxesOf(path)) {
      // SRA3 lying: 450 × 320 mm; two pages of 420 × 595 pt in its middle.
      const trim = [mm(225) - 420, mm(160) - 297.5, mm(225) + 420, mm(160) + 297.5];
      agree(MediaBox!, [0, 0, mm(450), mm(320)]);
      agree(TrimBox!, trim);
      agree(
        BleedBox!,
        trim.map((value, i) => value + [-1, -1, 1, 1][i]! * mm(3)),
      );
    }
  });

  test('turned pages, a UserUnit, a MediaBox off the origin and several files land where they should', async () => {
    const given = [
      await give(await markedPdf(1, { rotate: 180, origin: [-50, 30] })),
      await give(await markedPdf(2, { width: 210, height: 297.5, userUnit: 2 })),
    ];
    const flipped = given[0]!;
    const path = await make(
      docketOf([takeIn(flipped), takeIn(given[1]!, undefined, 'u')], {
        scheme: { ...DEFAULT_SCHEME, pad: 'end' },
      }),
      { kind: 'sheets' },
      ...given,
    );
    const [front, back] = wordsOf(path);
    // Page 1, seen turned upside down, is on the right of the front: its foot marker is above its head marker.
    const word = (side: typeof front, text: string) => side!.filter((found) => found.text === text);
    const y = (text: string, index = 0) => word(front, text)[index]!.y;
    expect(y('FOOT1')).toBeGreaterThan(y('HEAD1'));
    const [left, right] = [word(back, 'P1')[0]!, word(back, 'P2')[0]!];
    expect(right.x - left.x).toBeCloseTo(420, 0);
    expect(word(back, 'HEAD1')[0]!.y - word(back, 'FOOT1')[0]!.y).toBeCloseTo(2 * (297.5 - 80), 0);
  });

  test('spot inks keep a plate of their own, and marks are on every plate (Ghostscript tiffsep)', async () => {
    const [interior, front] = [await give(await drawInterior()), await give(await drawCover('front'))];
    expect(front.survey.inks).toContainEqual({
      name: 'Larkmoor Green',
      kind: 'spot',
      mix: [0.85, 0.35, 0.6, 0.45],
    });
    const bleed = {
      id: 'b',
      kind: 'bleed' as const,
      pages: 'all',
      head: mm(3),
      foot: mm(3),
      spine: mm(3),
      fore: mm(3),
    };
    const path = await make(
      docketOf([takeIn(front), takeIn(interior, '1-3', 'u'), bleed]),
      { kind: 'sheets' },
      interior,
      front,
    );
    tool('qpdf', '--check', path);
    const darkest = (ink: string, area: string) => {
      const [left, foot] = area.split(' ').map(Number);
      tool(
        'gs',
        '-q',
        '-dNOPAUSE',
        '-dBATCH',
        '-dSAFER',
        '-sDEVICE=tiffsep',
        '-r72',
        '-dLastPage=1',
        `-sOutputFile=${path}.%d.tif`,
        path,
      );
      // tiffsep plates are 8-bit grey, 0 for full ink.
      return plate(`${path}.1(${ink}).tif`, left!, foot!);
    };
    const [cx, cy] = [mm(225) + 200, mm(160) + 250];
    expect(await darkest('Larkmoor Green', `${cx} ${cy}`)).toBe(0);
    expect(await darkest('Larkmoor Green', `${mm(225) - 200} ${cy}`)).toBe(255);
    const markX = mm(225) + mm(148);
    const markY = mm(160) + mm(105) + mm(5.5);
    for (const ink of ['Cyan', 'Magenta', 'Yellow', 'Black', 'Larkmoor Green'])
      expect(await darkest(ink, `${markX} ${markY}`), ink).toBeLessThan(255);
  });

  test('files packed, locked and damaged in every way become the same sheets (made by qpdf)', async () => {
    const plain = keep(await markedPdf(8));
    const written = (name: string, ...args: string[]) => {
      tool('qpdf', ...args, plain, `${plain}.${name}`);
      return readBack(`${plain}.${name}`);
    };
    const split = await PDFDocument.load(readBack(plain));
    for (const page of split.getPages()) {
      const { context } = split;
      // An operator's operands in one stream, the operator in the next: legal, and only joined do they make sense.
      const [before, after] = [context.flateStream('q 1 0 0 1 0'), context.flateStream('0 cm\nQ')];
      page.node.set(
        PDFName.of('Contents'),
        context.obj([
          context.register(before),
          context.register(after),
          ...page.node.normalizedEntries().Contents!.asArray(),
        ]),
      );
    }
    const files = {
      objectStreams: written('packed', '--object-streams=generate', '--compress-streams=y'),
      linearized: written('linear', '--linearize'),
      ownerPassword: written('locked', '--encrypt', '', 'owner', '256', '--'),
      noTable: Buffer.from(
        readBack(plain)
          .toString('latin1')
          .replace(/startxref\n\d+/, 'startxref\n7'),
        'latin1',
      ),
      wrongLength: Buffer.from(
        readBack(plain)
          .toString('latin1')
          .replaceAll(/\/Length \d+/g, '/Length 9'),
        'latin1',
      ),
      severalStreams: await split.save(),
    };
    for (const [name, bytes] of Object.entries(files)) {
      const given = await give(bytes);
      await expectPlanned(docketOf([takeIn(given)]), given).catch((error: unknown) => {
        throw new Error(name, { cause: error });
      });
    }
  });

  test('pages with one content stream keep their compressed bytes', async () => {
    const made = readBack(await make(docketOf([takeIn(marked)]), { kind: 'sheets' }, marked));
    const source = await PDFDocument.load(marked.bytes);
    for (const page of source.getPages()) {
      const contents = page.node.Contents();
      const stream =
        contents instanceof PDFArray ? contents.lookup(0, PDFRawStream) : (contents as PDFRawStream);
      expect(stream.dict.get(PDFName.of('Filter'))).toBe(PDFName.of('FlateDecode'));
      expect(made.includes(Buffer.from(stream.getContents()))).toBe(true);
    }
  });

  test('a fault deep inside what a page draws does not stop the sheets half way', async () => {
    const document = await PDFDocument.load(await markedPdf(4));
    const { context } = document;
    const form = context.stream('q Q '.repeat(1111), {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [0, 0, 9, 9],
    });
    document.getPage(2).node.newXObject('Deep', context.register(form));
    const text = Buffer.from(await document.save({ useObjectStreams: false })).toString('latin1');
    expect(text.split('/Length 4444')).toHaveLength(2);
    const given = await give(Buffer.from(text.replace('/Length 4444', '/Length 4400'), 'latin1'));
    await expectPlanned(docketOf([takeIn(given)]), given);
  });
});

/** poppler prints two decimals: agreement to 0.01 pt is agreement to the last digit printed. */
const agree = (box: number[], expected: number[]) =>
  expected.forEach((value, i) => expect(Math.abs(box[i]! - value)).toBeLessThan(0.01));

/** Least value (0 is full ink) within 1 pt of a place, in points from the sheet's lower left corner, of a tiffsep plate at 72 dpi. */
async function plate(file: string, x: number, y: number): Promise<number> {
  const { default: sharp } = await import('sharp');
  const { data, info } = await sharp(file).raw().toBuffer({ resolveWithObject: true });
  let least = 255;
  for (let dx = -1; dx <= 1; dx++)
    for (let dy = -1; dy <= 1; dy++)
      least = Math.min(
        least,
        data[((info.height - 1 - Math.round(y) + dy) * info.width + Math.round(x) + dx) * info.channels]!,
      );
  return least;
}
