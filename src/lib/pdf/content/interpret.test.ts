import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { expect, test } from 'vitest';
import { surveyPdf } from '../read/survey';
import { interpret, type Paint } from './interpret';

const bytesOf = (content: string) => Buffer.from(content, 'latin1');

/** What each path is painted in, with its first corner. */
function painted(content: string): [string, number[] | undefined, number[]][] {
  const all: [string, number[] | undefined, number[]][] = [];
  const said = ({ name, components }: Paint) => [name, components && [...components]] as const;
  interpret(bytesOf(content), {
    paint: ([path], { strokes }, { line, area }) =>
      void all.push([
        ...said(strokes ? line : area),
        path!.points[0]!.map((value) => Math.round(value * 1000) / 1000),
      ]),
  });
  return all;
}

test.each<[what: string, content: string, painted: ReturnType<typeof painted>]>([
  ['black where nothing is set', '1 2 3 4 re f', [['DeviceGray', [0], [1, 2]]]],
  ['the colour that Q brings back', '1 0 0 rg q 0 g Q 1 2 3 4 re f', [['DeviceRGB', [1, 0, 0], [1, 2]]]],
  ['lines apart from areas', '1 g 0 0 0 1 K 5 6 m 7 8 l S', [['DeviceCMYK', [0, 0, 0, 1], [5, 6]]]],
  ['a space without components', '/Moss cs 0 0 1 1 re f', [['Moss', undefined, [0, 0]]]],
  [
    'matrices, the inner one first',
    '1 0 0 1 10 0 cm 2 0 0 2 0 0 cm 1 1 m 2 2 l S',
    [['DeviceGray', [0], [12, 2]]],
  ],
  ['no path after n', '0 0 5 5 re n 1 2 m 3 4 l S', [['DeviceGray', [0], [1, 2]]]],
  ['a Q too many', 'Q 1 g Q 1 2 3 4 re f', [['DeviceGray', [1], [1, 2]]]],
])('paths are painted in %s', (_, content, expected) => {
  expect(painted(content)).toEqual(expected);
});

test.each<[where: string, content: string, inks: string[]]>([
  ['an operator', '1 0 0 rg 0 0 1 1 re f', ['RGB']],
  ['a comment after its operands', '0 0 0 1 %% rg\nk 0 0 1 1 re f', ['CMYK']],
  ['no ink: a string', 'BT (1 0 0 rg \\) 0 g) Tj <30206720> Tj ET', []],
  ['no ink: a string with brackets in it', 'BT (a (b) 1 0 0 rg c) Tj ET', []],
  ['no ink: a name', '/rg gs /k cs', []],
  ['no ink: the data of an image', 'BI /W 1 /H 1 /BPC 8 /CS /Moss ID \x01 0 g\n EI\n', []],
])('a page’s inks are found in %s', async (_, content, inks) => {
  const document = await PDFDocument.create({ updateMetadata: false });
  const page = document.addPage([20, 20]);
  page.node.set(PDFName.of('Contents'), document.context.register(document.context.stream(bytesOf(content))));
  const { inks: found } = await surveyPdf(await document.save());
  expect(found?.map(({ name }) => name) ?? []).toEqual(inks);
});

test('what the visitor returns stands in the place of an operation, all else stays as it was', () => {
  const content = '(a rg) Tj  1 0 0 rg % red\n/Moss cs .5 scn 0 G';
  const rewritten = interpret(bytesOf(content), {
    colour: (what, { operator, operands }) =>
      what === 'line' ? undefined : `<${operands.join()}>${operator}`,
  });
  expect(rewritten).toBe('(a rg) Tj  <1,0,0>rg % red\n</Moss>cs <.5>scn 0 G');
});

test.each([[[]], [[1, 0, 0]], [['/X', 0, 0, 1, 0, 0]]])(
  'a form whose matrix is %j lies as if it had none',
  async (matrix) => {
    const { context } = await PDFDocument.create({ updateMetadata: false });
    const entries = matrix.map((each) => (typeof each === 'string' ? PDFName.of(each) : each));
    const form = context.stream('1 2 m 3 4 l S', {
      Type: 'XObject',
      Subtype: 'Form',
      Matrix: context.obj(entries),
    });
    const resources = context.obj({ XObject: { F: context.register(form) } });
    const found: unknown[] = [];
    interpret(bytesOf('/F Do'), { paint: (paths) => void found.push(...paths) }, { resources });
    expect(found).toEqual([
      {
        points: [
          [1, 2],
          [3, 4],
        ],
        closed: false,
      },
    ]);
  },
);
