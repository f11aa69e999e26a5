import { POINTS_PER } from '../measure/unit';
import { caliperOf, type Stock } from '../paper/stock';
import { coverPress, SPINE_WORDS } from './coverSheet';
import { sidesOf, type Cell, type PrintedSide, type SheetPlan } from './plan';
import type { WorkStyle } from './pressTerms';
import type { PressScheme } from './schemes';

const STYLE: Record<WorkStyle, string> = {
  sheetwise: 'WorkAndBack',
  'work-and-turn': 'WorkAndTurn',
  'work-and-tumble': 'WorkAndTumble',
  'single-side': 'Simplex',
};

const escaped = (text: string): string =>
  text.replace(/[&<>"\p{Cc}]/gu, (char) => `&#${char.codePointAt(0)};`);
type Values = Record<string, string | number | undefined>;
function element(name: string, values: Values, inner: readonly string[] = []): string {
  const attributes = Object.entries(values)
    .filter(([, value]) => value !== undefined)
    .map(([key, value]) => ` ${key}="${escaped(String(value))}"`)
    .join('');
  return inner.length ? `<${name}${attributes}>${inner.join('')}</${name}>` : `<${name}${attributes}/>`;
}
/** Points, to a thousandth. */
const figure = (points: number): number => Math.round(points * 1000) / 1000 + 0;
const figures = (all: readonly number[]): string => all.map(figure).join(' ');

/**
 * The sheets as XJDF 2.1 (CIP4; from memory): the paper, how it is printed, and where each page is placed on each side.
 * `Ord` counts pages from 0, those of a cover after the book's, and CTM leads from a page whose trim begins at (0, 0) to its
 * side of the sheet. What the schema says of folding catalogues and strip marks is left out rather than guessed; the sheet
 * map and the sheet PDF have it. Lengths in points, as XJDF asks.
 */
export function sheetsXjdf(plan: SheetPlan, scheme: PressScheme, title: string): string {
  const sides = sidesOf(plan);
  const nameOf = (sheet: number) => `sheet-${sheet}`;
  const ofBook = Array.from({ length: plan.sheetCount }, (_, n) => nameOf(n + 1));
  const { cover } = plan;
  // A cover is on other paper, and may be printed on one side only.
  const kinds = [
    { stock: scheme.stock, style: STYLE[plan.work], names: ofBook },
    ...(cover && scheme.kind === 'signatures'
      ? [
          {
            stock: coverPress(scheme).stock,
            style: STYLE[cover.plan.work],
            names: [nameOf(plan.sheetCount + 1)],
          },
        ]
      : []),
  ];
  const set = (name: string, resources: readonly string[]) =>
    element('ResourceSet', { Name: name, Usage: 'Input' }, resources);
  return `<?xml version="1.0" encoding="UTF-8"?>\n${element(
    'XJDF',
    {
      xmlns: 'http://www.CIP4.org/JDFSchema_2_0',
      Version: '2.1',
      JobID: title,
      Types: 'Imposition ConventionalPrinting',
    },
    [
      set(
        'Media',
        kinds.map(({ stock, names }) => element('Resource', {}, [...parts(names), media(stock)])),
      ),
      set(
        'ConventionalPrintingParams',
        kinds.map(({ style, names }) =>
          element('Resource', {}, [
            ...parts(names),
            element('ConventionalPrintingParams', { WorkStyle: style }),
          ]),
        ),
      ),
      set(
        'Layout',
        sides.map((side) => layout(side, nameOf(side.sheet))),
      ),
    ],
  )}\n`;
}

const parts = (names: readonly string[]) => names.map((SheetName) => element('Part', { SheetName }));

function media(stock: Stock): string {
  const caliper = caliperOf(stock);
  return element('Media', {
    MediaType: 'Paper',
    Dimension: figures([stock.width, stock.height]),
    Weight: stock.grammage,
    // Micrometres.
    Thickness: caliper === undefined ? undefined : figure((caliper / POINTS_PER.mm) * 1000),
    GrainDirection: stock.grain && { long: 'LongEdge', short: 'ShortEdge' }[stock.grain],
  });
}

function layout({ side, drawn, size }: PrintedSide, SheetName: string): string {
  return element('Resource', {}, [
    element('Part', { SheetName, Side: side === 'front' ? 'Front' : 'Back' }),
    element(
      'Layout',
      { SurfaceContentsBox: figures([0, 0, size.width, size.height]) },
      drawn.cells.flatMap((cell) => placed(cell)),
    ),
  ]);
}

function placed({ page, position, matrix, clip }: Cell): string[] {
  if (!page || page.id === SPINE_WORDS) return [];
  const { width, height } = page.trim;
  const { x0, y0, x1, y1 } = clip;
  return [
    element(
      'PlacedObject',
      {
        Ord: position - 1,
        CTM: figures(matrix),
        ClipBox: figures([x0, y0, x1, y1]),
        TrimSize: figures([width, height]),
        TrimCTM: figures(matrix),
      },
      [element('ContentObject', {})],
    ),
  ];
}
