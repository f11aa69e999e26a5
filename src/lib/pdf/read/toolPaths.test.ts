import { readFileSync } from 'node:fs';
import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { expect, test } from 'vitest';
import { drawTickets } from '../../../../demo/tickets';
import { docketOf, stepsOf } from '../../../../tests/makers';
import { give, make, tool } from '../../../../tests/outside';
import { chordsOf, cutLength, cutPieces, type Point } from '../../core/handover/cutting';
import { DIE_LINE } from '../../core/docket/steps/overlay';
import { mm } from '../../core/measure/unit';
import { surveyPdf } from './survey';
import { toolPaths } from './toolPaths';

/** How far strokes in a spot ink go on each page, as mutool reads them. */
function tracedLengths(path: string, ink: string): number[] {
  return tool('mutool', 'trace', path)
    .split('<page ')
    .slice(1)
    .map((page) => {
      let sum = 0;
      for (const [, head, body] of page.matchAll(/<stroke_path ([^>]*)>([\s\S]*?)<\/stroke_path>/g)) {
        if (!head!.includes(ink)) continue;
        const [a, b, c, d, e, f] = /transform="([^"]*)"/.exec(head!)![1]!.split(' ').map(Number) as [
          number,
          number,
          number,
          number,
          number,
          number,
        ];
        const at = (x: string, y: string): Point => [
          a * Number(x) + c * Number(y) + e,
          b * Number(x) + d * Number(y) + f,
        ];
        let [from, first]: [Point, Point] = [
          [0, 0],
          [0, 0],
        ];
        const go = (to: Point) => {
          sum += Math.hypot(to[0] - from[0], to[1] - from[1]);
          from = to;
        };
        for (const [, what, more] of body!.matchAll(/<(moveto|lineto|curveto|closepath)([^>]*)\/>/g)) {
          const n = [...more!.matchAll(/="([^"]*)"/g)].map(([, value]) => value!);
          if (what === 'moveto') from = first = at(n[0]!, n[1]!);
          else if (what === 'lineto') go(at(n[0]!, n[1]!));
          else if (what === 'closepath') go(first);
          else chordsOf(from, at(n[0]!, n[1]!), at(n[2]!, n[3]!), at(n[4]!, n[5]!)).forEach(go);
        }
      }
      return sum;
    });
}

test('the die line on every ticket is as long as mutool has it, by its ink and by its layer, and cuts the ticket and its hole loose', async () => {
  const given = await give(await drawTickets());
  const { name } = given.survey.inks.find(({ kind }) => kind === 'spot')!;
  const docket = docketOf([
    { id: 't', kind: 'take-in', source: given.hash, name: 'tickets.pdf', where: { at: 'end' } },
    ...stepsOf([DIE_LINE]),
  ]);
  const path = await make(docket, { kind: 'pages', crop: 'bleed' }, given);
  const bytes = readFileSync(path);
  const survey = await surveyPdf(bytes);
  const traced = tracedLengths(path, name);
  expect(traced).toHaveLength(50);
  const byInk = await toolPaths(bytes, { what: 'ink', name }, survey);
  byInk.forEach((paths, n) => expect(cutLength(paths)).toBeCloseTo(traced[n]!, 1));
  // A box of 55 × 28 mm with corners of 2.5 mm, and a hole of 1.6 mm: the ticket and what falls out of it.
  const round = 2 * (55 + 28) - 8 * 2.5 + 2 * Math.PI * (2.5 + 1.6);
  expect(cutLength(byInk[0]!) / mm(1)).toBeCloseTo(round, 1);
  expect(byInk.map(cutPieces)).toEqual(byInk.map(() => 2));
  const byLayer = await toolPaths(bytes, { what: 'layer', name: DIE_LINE.layer }, survey);
  expect(byLayer).toEqual(byInk);
});

test('paths in forms, turned pages and all of a path that is filled count; other inks, no tint, clips and what is hidden in text do not', async () => {
  const document = await PDFDocument.create();
  const { context } = document;
  const page = document.addPage([300, 400]);
  page.node.set(PDFName.of('Rotate'), context.obj(90));
  const spot = (name: string) =>
    context.obj([
      'Separation',
      name,
      'DeviceCMYK',
      { FunctionType: 2, Domain: [0, 1], C0: [0, 0, 0, 0], C1: [0, 1, 0, 0], N: 1 },
    ] as never);
  const both = context.obj([
    'DeviceN',
    ['Gold', 'Die'],
    'DeviceCMYK',
    { FunctionType: 4, Domain: [0, 1, 0, 1], Range: [0, 1, 0, 1, 0, 1, 0, 1] },
  ] as never);
  const form = context.register(
    context.stream('0 SCN 0 0 m 9 9 l S 1 SCN 0 0 m 50 0 l 50 50 l h S', {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [0, 0, 100, 100],
      Matrix: [2, 0, 0, 2, 10, 20],
    }),
  );
  const content = [
    '/D CS q /F Do /G CS Q', // a space that a form twice as large goes on with, and that is there again after another one
    '0 SCN 0 0 300 400 re S 1 SCN', // no tint
    '/G CS 0 0 m 300 400 l S /D CS', // another ink
    '/N cs 1 0 scn 0 0 100 100 re f 0 .5 scn 200 300 30 40 re f', // of two inks the other one, then this one
    '0 0 40 40 re W n BT (0 0 m 300 400 l S) Tj ET', // a clip, and words that look like a path
    '0 0 0 1 K 0 0 m 9 9 l S', // process
  ].join('\n');
  page.node.set(PDFName.of('Contents'), context.register(context.stream(content)));
  page.node.set(
    PDFName.of('Resources'),
    context.obj({ XObject: { F: form }, ColorSpace: { D: spot('Die'), G: spot('Gold'), N: both } } as never),
  );
  const bytes = await document.save({ useObjectStreams: false });
  const [paths] = await toolPaths(bytes, { what: 'ink', name: 'Die' }, await surveyPdf(bytes));
  // A page turned clockwise shows (x, y) at (y, 300 − x).
  expect(paths).toEqual([
    {
      points: [
        [20, 290],
        [20, 190],
        [120, 190],
      ],
      closed: true,
    },
    {
      points: [
        [300, 100],
        [300, 70],
        [340, 70],
        [340, 100],
      ],
      closed: true,
    },
  ]);
});
