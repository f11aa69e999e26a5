import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { bookOf, docketOf, stepsOf } from '../../../../tests/makers';
import { give, keep, make, platesOf, tool, type Given } from '../../../../tests/outside';
import { workOut } from '../../core/checks';
import type { StepDraft as Draft } from '../../core/docket/steps';
import { PLAIN_LINES } from '../../core/model/lines';
import { inksOf } from '../../core/numbers/jobInks';
import { DEFAULT_SCHEME } from '../../core/sheets/schemes';
import { operationsOf } from '../content/operations';
import { hideInks } from '../write/hideInks';

const name = (text: string) => PDFName.of(text);
const tint = (mix: number[]) => ({ FunctionType: 2, Domain: [0, 1], C0: mix.map(() => 0), C1: mix, N: 1 });
const spot = (ink: string, mix: number[]) => [name('Separation'), name(ink), name('DeviceCMYK'), tint(mix)];

/** Fields of 20 points from left to right, each in another ink: the operators that set it, and the plates that it prints on. */
const FIELDS: readonly [string, string[]][] = [
  ['1 0 0 0 k', ['Cyan']],
  ['0 0.8 0 0 k', ['Magenta']],
  ['/DeviceCMYK cs 0 0 1 0 sc', ['Yellow']],
  ['0 g', ['Black']],
  ['1 0 0 rg', ['RGB']],
  ['/Moss cs 1 scn', ['Moss']],
  ['/Two cs 0 1 scn', ['Tan']],
  ['/Icc cs 0 1 0 0 scn', ['Magenta']],
  ['q 20 0 0 20 %X 0 cm /Image Do Q', ['Yellow']],
  ['q 1 0 0 1 %X 0 cm /Form Do Q', ['Cyan']],
];

/** A page with the fields, some of whose colours stand in spaces, an image and a form. */
async function fields(): Promise<Uint8Array> {
  const document = await PDFDocument.create({ updateMetadata: false });
  const { context } = document;
  const page = document.addPage([20 * FIELDS.length, 20]);
  const two = context.register(
    context.stream('{ dup 0.4 mul exch 3 -1 roll dup 0.9 mul exch pop 0 4 1 roll exch 0 }', {
      FunctionType: 4,
      Domain: [0, 1, 0, 1],
      Range: [0, 1, 0, 1, 0, 1, 0, 1],
    }),
  );
  const image = context.register(
    context.stream(Uint8Array.from([0, 0, 255, 0]), {
      Type: 'XObject',
      Subtype: 'Image',
      Width: 1,
      Height: 1,
      BitsPerComponent: 8,
      ColorSpace: 'DeviceCMYK',
    }),
  );
  const form = context.register(
    context.stream('0.6 0 0 0 k 0 0 20 20 re f', { Type: 'XObject', Subtype: 'Form', BBox: [0, 0, 20, 20] }),
  );
  const profile = context.register(context.stream('', { N: 4, Alternate: 'DeviceCMYK' }));
  page.node.set(
    name('Resources'),
    context.obj({
      ColorSpace: {
        Moss: spot('Moss', [0.8, 0.2, 0.9, 0.1]),
        Two: [name('DeviceN'), [name('Moss'), name('Tan')], name('DeviceCMYK'), two],
        Icc: [name('ICCBased'), profile],
      },
      XObject: { Image: image, Form: form },
    } as never),
  );
  const content = FIELDS.map(([set], n) =>
    set.includes('Do') ? set.replace('%X', String(20 * n)) : `${set} ${20 * n} 0 20 20 re f`,
  );
  page.node.set(name('Contents'), context.register(context.flateStream(content.join('\n'))));
  return document.save({ useObjectStreams: false });
}

/** Whether each field is white, as poppler draws it. */
async function whites(bytes: Uint8Array): Promise<boolean[]> {
  const out = keep(new Uint8Array(), 'picture');
  tool('pdftoppm', '-r', '72', '-png', '-singlefile', keep(bytes), out);
  const { data, info } = await sharp(`${out}.png`).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return FIELDS.map((_, n) => {
    const at = 3 * (10 * info.width + 20 * n + 10);
    return [0, 1, 2].every((part) => data[at + part]! > 250);
  });
}

test.each(['Cyan', 'Magenta', 'Yellow', 'Black', 'RGB', 'Moss', 'Tan'])(
  'in a copy for viewing without %s, just what prints with it is white (poppler)',
  async (ink) => {
    const bytes = await fields();
    expect(await whites(bytes)).toEqual(FIELDS.map(() => false));
    const veiled = await hideInks(bytes, new Set([ink]));
    expect(await whites(veiled)).toEqual(FIELDS.map(([, plates]) => plates.includes(ink)));
  },
);

test('operations of a content stream, whatever stands between them', () => {
  const content = '% 1 0 0 1 k\n(a (b) \\) k)Tj[<41>-20(g)]TJ/Im1 Do BI /W 1 ID \x00 k EI 1 .5 0 rg';
  expect([...operationsOf(content)].map(({ operator, operands }) => [operator, operands.length])).toEqual([
    ['Tj', 1],
    ['TJ', 5],
    ['Do', 1],
    ['BI', 0],
    ['ID', 2],
    ['EI', 0],
    ['rg', 3],
  ]);
});

describe('the inks of a job', () => {
  /** Two pages: one with an ink, one with the same under another spelling, besides black. */
  async function misspelt(): Promise<Given> {
    const document = await PDFDocument.create({ updateMetadata: false });
    for (const ink of ['Moor Green', 'moor-green', 'moor-green']) {
      const page = document.addPage([100, 100]);
      page.node.set(
        name('Resources'),
        document.context.obj({ ColorSpace: { A: spot(ink, [0.8, 0, 1, 0]) } } as never),
      );
      page.node.set(
        name('Contents'),
        document.context.register(
          document.context.flateStream('/A cs 1 scn 10 10 50 50 re f 0 g 70 70 9 9 re f'),
        ),
      );
    }
    return give(await document.save({ useObjectStreams: false }));
  }
  const work = (given: Given, drafts: Draft[]) =>
    docketOf(
      [
        { id: 't', kind: 'take-in', source: given.hash, name: 'x.pdf', where: { at: 'end' } },
        ...stepsOf(drafts),
      ],
      { book: bookOf('right'), scheme: DEFAULT_SCHEME },
    );
  const folio = {
    kind: 'folio',
    pages: '1',
    ...PLAIN_LINES,
    x: 10,
    y: 10,
    ink: { as: 'spot', name: 'moor-green', tint: 0.5, mix: [0.8, 0, 1, 0] },
    edge: 'head',
    across: 'outer',
    text: '{page}',
  } as Draft;

  test('are listed by page with the steps that brought them; two spellings are found, and mended by a step', async () => {
    const given = await misspelt();
    const surveys = { [given.hash]: given.survey };
    const docket = work(given, [folio]);
    const { list, findings } = workOut(docket, surveys);
    expect(
      inksOf(list, surveys, docket).map(({ name: ink, pages, steps }) => [ink, pages.length, steps]),
    ).toEqual([
      ['Black', 3, ['t']],
      ['Moor Green', 1, ['t']],
      ['moor-green', 3, ['s0', 't']],
    ]);
    const found = findings.find(({ code }) => code === 'spots-alike')!;
    expect(found).toMatchObject({
      names: ['Moor Green', 'moor-green'],
      mend: { steps: [{ kind: 'ink', from: 'Moor Green', to: 'moor-green' }] },
    });
    const mended = work(given, [folio, ...found.mend!.steps!]);
    expect(workOut(mended, surveys).findings.map(({ code }) => code)).not.toContain('spots-alike');
  });

  test.each([{ kind: 'pages', crop: 'bleed' } as const, { kind: 'sheets' } as const])(
    'a renamed spot has one plate under its new name in %j, and its tints as they were (Ghostscript tiffsep)',
    async (output) => {
      const given = await misspelt();
      const before = await platesOf(await make(work(given, [folio]), output, given));
      const changes: Draft[] = [
        { kind: 'ink', from: 'Moor Green', to: 'moor-green' },
        { kind: 'ink', from: 'moor-green', to: 'Größe (1)' },
      ];
      const path = await make(work(given, [folio, ...changes]), output, given);
      tool('qpdf', '--check', path);
      const after = await platesOf(path);
      const total = (plates: Map<string, Buffer>, ...inks: string[]) =>
        inks.reduce((sum, ink) => sum + (plates.get(ink)?.reduce((all, dot) => all + 255 - dot, 0) ?? 0), 0);
      after.forEach((plates, n) => {
        const [own] = [...plates.keys()].filter(
          (ink) => !['Cyan', 'Magenta', 'Yellow', 'Black'].includes(ink),
        );
        expect([...plates.keys()].filter((ink) => /moor/i.test(ink))).toEqual([]);
        // Marks of sheets print on every plate, and so on one less than before.
        const marks = total(before[n]!, 'Cyan');
        expect(total(plates, own!)).toBe(
          total(before[n]!, 'Moor Green', 'moor-green') - (before[n]!.size - plates.size) * marks,
        );
        expect(total(plates, 'Black')).toBe(total(before[n]!, 'Black'));
      });
    },
  );

  test('refused: an ink that no page has, and a name that it has already', async () => {
    const given = await misspelt();
    const problem = (from: string, to: string) =>
      workOut(work(given, [{ kind: 'ink', from, to }]), { [given.hash]: given.survey }).replay.failed.map(
        ({ problem: each }) => each.code,
      );
    expect(problem('Gold', 'Silver')).toEqual(['no-such-ink']);
    expect(problem('Moor Green', 'Moor Green')).toEqual(['same-ink']);
  });
});
