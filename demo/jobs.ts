import { emptyDocket, type Docket } from '../src/lib/core/docket/docket';
import { recipeSchema, type Recipe } from '../src/lib/core/docket/recipe';
import type { Step } from '../src/lib/core/docket/steps';
import { DEFAULT_SCHEME, PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import { PLAIN_LINES } from '../src/lib/core/model/lines';
import { DIE_LINE } from '../src/lib/core/docket/steps/overlay';
import { mm } from '../src/lib/core/measure/unit';
import { drawGala } from './gala';
import { drawGateFolder } from './gateFolder';
import { drawHandbook, drawHandbookCover } from './handbook';
import { drawLineGuide } from './lineGuide';
import { drawRuleBookScans } from '../src/lib/standins/ruleBook';
import { drawStationery, PIECES } from './stationery';
import { drawTickets } from './tickets';
import { drawCover, drawInterior } from './timetable';

export interface DemoSource {
  name: string;
  draw: () => Promise<Uint8Array>;
}

/** The sources of all demo jobs. */
export const SOURCES: readonly DemoSource[] = [
  { name: 'timetable-interior.pdf', draw: drawInterior },
  { name: 'cover-front.pdf', draw: () => drawCover('front') },
  { name: 'cover-back.pdf', draw: () => drawCover('back') },
  { name: 'footplate-handbook.pdf', draw: drawHandbook },
  { name: 'footplate-cover.pdf', draw: drawHandbookCover },
  { name: 'stationery.pdf', draw: drawStationery },
  { name: 'platform-tickets.pdf', draw: drawTickets },
  { name: 'gate-folder.pdf', draw: drawGateFolder },
  { name: 'gala-leaflet.pdf', draw: drawGala },
  { name: 'line-guide.pdf', draw: drawLineGuide },
  { name: 'rule-book-scans.pdf', draw: () => drawRuleBookScans() },
  { name: 'rule-book-second-copy.pdf', draw: () => drawRuleBookScans({ without: [1] }) },
];

/** Raw scans of a stapled booklet, turned and put in order by the numbers printed on them. */
export const SCANS_RECIPE: Recipe = recipeSchema.parse({
  recipe: 1,
  name: 'Booklet scans to reading order',
  about: 'For the scanner: each booklet becomes a PDF that is read from front to back.',
  steps: [
    {
      id: 'order',
      kind: 'reading-order',
      pages: 'all',
      arrangement: { by: 'stitched', scans: 'sheets' },
      gutter: 0,
      byNumbers: true,
    },
  ],
  book: { first: 'right', spine: 'left', facing: true },
  scheme: { kind: 'none' },
  outputs: [{ kind: 'pages', crop: 'trim', name: '{source} in reading order' }],
});

/** A step that takes in a file of the demo. */
type TakeIn = (id: string, name: string, at?: 'start' | 'end') => Step;

/** Lines of 8 points at so many millimetres from the trim. */
const set8 = (id: string, pages: string, at: { x: number; y: number }) =>
  ({ ...PLAIN_LINES, id, pages, x: mm(at.x), y: mm(at.y), size: 8 }) as const;
const loose = { first: 'right', spine: 'left', facing: false } as const;
/** A finished interior with a cover put round it afterwards, so that its pairs have come apart. */
const timetable = (takeIn: TakeIn): Docket => ({
  ...emptyDocket('Season timetable'),
  steps: [
    takeIn('t-interior', 'timetable-interior.pdf'),
    // The map of the line runs across the middle spread.
    { id: 'k-map', kind: 'keep', pages: '6-7', together: true },
    takeIn('t-front', 'cover-front.pdf', 'start'),
    takeIn('t-back', 'cover-back.pdf'),
    {
      ...set8('l-head', '2-last-1', { x: 12, y: 6 }),
      kind: 'running',
      texts: [{ edge: 'head', across: 'outer', text: '{title}', left: 'Larkmoor Light Railway Society' }],
    },
  ],
});
/** Four pages of other sizes, unnoticed among 128; front matter in roman, body from 1, numbers at the outer edge. */
const handbook = (takeIn: TakeIn): Docket => ({
  ...emptyDocket('Footplate handbook'),
  scheme: {
    ...PLAIN_SCHEMES.signatures,
    stock: { width: mm(640), height: mm(900), grammage: 100, bulk: 1.2, grain: 'long' },
    creep: { by: 'shift' },
    run: { pieces: 400, overs: 3 },
    cover: {
      stock: { width: mm(450), height: mm(320), grammage: 250, bulk: 1.1, grain: 'short' },
      added: 0,
      text: 'Footplate handbook',
      textSize: 10,
      ink: { as: 'process', c: 0.02, m: 0.04, y: 0.18, k: 0 },
      runs: 'down',
    },
    marks: {
      trim: true,
      fold: true,
      registration: true,
      bar: true,
      slug: '{job} · sheet {sheet}, {side} · {ink}',
    },
  },
  steps: [
    takeIn('t-book', 'footplate-handbook.pdf'),
    {
      id: 'n-book',
      kind: 'numbers',
      series: [
        { from: '1', name: 'front matter', style: 'r', start: 1 },
        { from: '11', name: 'body', style: 'D', start: 1 },
      ],
    },
    {
      ...set8('n-folios', 'not 1-2', { x: 14, y: 9 }),
      kind: 'folio',
      edge: 'foot',
      across: 'outer',
      text: '{page}',
      weight: 'strong',
      size: 10,
    },
    takeIn('t-book-cover', 'footplate-cover.pdf'),
    { id: 'c-book', kind: 'cover', pages: 'last', parts: ['outside'] },
  ],
});
/** Fifty tickets, each with its number, and the die line that came as page 51 on every one of them. */
const tickets = (takeIn: TakeIn): Docket => ({
  ...emptyDocket('Platform tickets'),
  book: loose,
  // So small a thing is cut more exactly than a book.
  safe: mm(2),
  // Cut into piles that lie in order on one another.
  scheme: {
    ...PLAIN_SCHEMES.flat,
    arrange: 'stack',
    work: 'single-side',
    between: mm(4),
    copies: { across: 2, up: 5 },
    stock: { width: mm(210), height: mm(297), grammage: 250, bulk: 1.2 },
  },
  steps: [
    takeIn('t-tickets', 'platform-tickets.pdf'),
    { ...DIE_LINE, id: 'o-die' },
    {
      ...set8('n-tickets', 'all', { x: 6, y: 3.6 }),
      kind: 'set',
      edge: 'foot',
      across: 'right',
      text: 'No. {number}',
      size: 7,
      start: 1201,
      by: 1,
      digits: 5,
    },
  ],
});
const stationery = (takeIn: TakeIn): Docket => ({
  ...emptyDocket('Station stationery'),
  book: loose,
  // All pieces on one sheet, each as often as its quantity asks for.
  scheme: {
    ...PLAIN_SCHEMES.flat,
    arrange: 'gang',
    work: 'single-side',
    stock: { width: mm(640), height: mm(900), grammage: 100, bulk: 1.2 },
  },
  steps: [
    takeIn('t-set', 'stationery.pdf'),
    ...PIECES.map(({ name, quantity }, n): Step => ({
      id: `p-${n + 1}`,
      kind: 'piece',
      pages: String(n + 1),
      name,
      quantity,
    })),
  ],
});
/** Each flap is narrowed by 1 mm, its content held at the outer corner. */
const narrowed = (id: string, pages: string, x: 'left' | 'right'): Step => ({
  id,
  kind: 'trim',
  pages,
  width: mm(104),
  height: mm(210),
  content: 'hold',
  fixed: { x, y: 'head' },
});
const gateFolder = (takeIn: TakeIn): Docket => ({
  ...emptyDocket('Open weekend gate folder'),
  book: loose,
  scheme: {
    ...PLAIN_SCHEMES.leaflet,
    pattern: { fold: 'gate' },
    pages: 'panels',
    first: 'inside',
    stock: { width: mm(320), height: mm(450), grammage: 170, bulk: 0.9 },
  },
  steps: [
    takeIn('t-gate', 'gate-folder.pdf'),
    { id: 'p-flaps', kind: 'piece', pages: '1, 3, 4, 6', name: 'Flap', quantity: 400 },
    { id: 'p-centre', kind: 'piece', pages: '2, 5', name: 'Centre', quantity: 400 },
    narrowed('s-left', '1, 4', 'left'),
    narrowed('s-right', '3, 6', 'right'),
  ],
});
/** Three panels alike: the one that folds in has no room to. */
const gala = (takeIn: TakeIn): Docket => ({
  ...emptyDocket('Gala day leaflet'),
  book: loose,
  scheme: {
    ...PLAIN_SCHEMES.leaflet,
    pages: 'panels',
    stock: { width: mm(320), height: mm(450), grammage: 135, bulk: 0.9 },
    run: { pieces: 2000, overs: 4 },
  },
  steps: [takeIn('t-gala', 'gala-leaflet.pdf')],
});
/** A fold-out off each end; one of them made as wide as the page that it must fold over. */
const panel = (id: string, on: string, folds: 'front' | 'back', width?: number): Step => ({
  id,
  kind: 'panel',
  pages: on,
  count: 1,
  show: '5-6',
  allowance: mm(2),
  folds,
  ...(width ? { width } : {}),
});
const lineGuide = (takeIn: TakeIn): Docket => ({
  ...emptyDocket('Line guide with fold-out map'),
  scheme: { ...DEFAULT_SCHEME, stock: { width: mm(640), height: mm(900) } },
  steps: [
    takeIn('t-guide', 'line-guide.pdf'),
    panel('f-right', '1', 'back'),
    panel('f-left', '4', 'front', mm(148)),
  ],
});
/** The handbook with all its pages of one size, and a cell of its second sheet turned by hand: its proof fails at one page. */
const turnedCell = (takeIn: TakeIn): Docket => {
  const plain = handbook(takeIn);
  const scheme = plain.scheme as Extract<Docket['scheme'], { kind: 'signatures' }>;
  return {
    ...plain,
    title: 'Handbook with a turned cell',
    scheme: {
      ...scheme,
      // The cover was made for a thinner book.
      cover: { ...scheme.cover!, spine: mm(6.4) },
      byHand: [{ do: 'turn', at: { sheet: 2, side: 'front', cell: 3 } }],
    },
    steps: [
      ...plain.steps,
      {
        id: 's-odd',
        kind: 'trim',
        pages: '27, 50, 83, 111',
        width: mm(148),
        height: mm(210),
        content: 'fit',
        fixed: { x: 'centre', y: 'centre' },
      },
    ],
    outputs: [{ kind: 'sheets' }, { kind: 'proof', error: mm(1) }, { kind: 'ticket' }],
  };
};

/** The raw scans; the second copy lacks a sheet. */
const scans = (takeIn: TakeIn, title: string, id: string, name: string): Docket => ({
  ...emptyDocket(title),
  scheme: { kind: 'none' },
  book: loose,
  steps: [takeIn(id, name)],
});

/** The demo's dockets, given the SHA-256 of each source by its name. */
export function demoDockets(hashes: Readonly<Record<string, string>>): Docket[] {
  const takeIn: TakeIn = (id, name, at = 'end') => ({
    id,
    kind: 'take-in',
    source: hashes[name]!,
    name,
    where: { at },
  });
  return [
    turnedCell(takeIn),
    scans(takeIn, 'Rule book 1931, second copy', 't-second', 'rule-book-second-copy.pdf'),
    scans(takeIn, 'Rule book 1931', 't-scans', 'rule-book-scans.pdf'),
    ...[gala, gateFolder, stationery, tickets, handbook, lineGuide, timetable].map((job) => job(takeIn)),
  ];
}
