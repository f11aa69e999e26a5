import { formatFigure, formatLength, formatSize, UNIT_SIGN } from '../core/measure/formatLength';
import type { Unit } from '../core/measure/unit';
import { describeIndexes, pickedOf, type Selection } from '../core/pages/selection';
import type { Purpose } from '../core/numbers/laid';
import type { LinePlace, TextAt } from '../core/numbers/lines';
import { inStyle, type NumberStyle } from '../core/numbers/series';
import { setNumber } from '../core/numbers/set';
import type { SeriesFrom } from '../core/docket/steps/numbers';
import type { StampSize } from '../core/docket/steps/stamp';
import { sayPercent } from './lengths';
import { facesOf, type Book, type Edges, type PageList } from '../core/pages/page';
import type { Arrangement, ScanOrder } from '../core/pages/rescue';
import type { Place } from '../core/pages/place';
import type { Format } from '../core/docket/format';
import type { Step } from '../core/docket/steps';
import type { Cut } from '../core/docket/steps/crop';
import { COVER_WORD } from './book';
import { saySize } from './findings';

/** What each kind of step is called. */
export const STEP_NAME: Record<Step['kind'], string> = {
  'take-in': 'Take in',
  blank: 'Blank',
  copy: 'Copy',
  remove: 'Remove',
  move: 'Move',
  trim: 'Size',
  bleed: 'Bleed',
  crop: 'Crop',
  uncrop: 'Uncrop',
  turn: 'Turn',
  margins: 'Margins',
  format: 'Format',
  piece: 'Piece',
  panel: 'Fold-out',
  'give-back': 'Give back',
  keep: 'Keep together',
  cover: 'Cover',
  split: 'Split',
  join: 'Join',
  'reading-order': 'Reading order',
  numbers: 'Number series',
  folio: 'Folios',
  running: 'Running lines',
  set: 'Numbered set',
  stamp: 'Stamp',
  overlay: 'Overlay',
  ink: 'Ink',
};

/** What the form of each kind of step is headed. */
export const FORM_TITLE: Record<Step['kind'], string> = {
  ...STEP_NAME,
  trim: 'Trim size',
  blank: 'Blank pages',
  margins: 'Margins and columns',
  panel: 'Fold-out panel',
  keep: 'Keep pages together',
  cover: 'The cover of a bound book',
  split: 'Split pages',
  join: 'Join pages',
  'reading-order': 'Back to reading order',
  folio: 'Folios: page numbers',
  set: 'Numbered set: tickets, vouchers',
  stamp: 'Stamp a graphic on pages',
  overlay: 'Lay a page over others',
  ink: 'Rename a spot ink',
};

/** A step in words: `act` is what it does, `what` to what, `detail` the rest. `before` is the list that the step meets. */
export function sayStep(
  step: Step,
  unit: Unit,
  before: PageList,
  formats: readonly Format[] = [],
): { act: string; what: string; detail: string } {
  const act = STEP_NAME[step.kind];
  switch (step.kind) {
    case 'take-in':
      return {
        act,
        what: step.name,
        detail: [step.take ? `its pages ${step.take}` : '', sayPlace(step.where, before)]
          .filter(Boolean)
          .join(' · '),
      };
    case 'blank':
      return {
        act,
        what: step.count === 1 ? '1 page' : `${step.count} pages`,
        detail: [
          step.shape ? formatSize(step.shape.width, step.shape.height, unit) : '',
          step.words ? `“${step.words}”` : '',
          sayPlace(step.where, before),
        ]
          .filter(Boolean)
          .join(' · '),
      };
    case 'copy':
      return {
        act: step.size ? 'Another size' : act,
        what: `of ${sayPages(step.pages, before)}`,
        detail: [
          step.piece ? `“${step.piece.name}”` : '',
          step.size ? saySize(step.size, unit) : '',
          sayPlace(step.where, before),
        ]
          .filter(Boolean)
          .join(' · '),
      };
    case 'remove':
    case 'uncrop':
      return { act, what: sayPages(step.pages, before), detail: '' };
    case 'move':
      return { act, what: sayPages(step.pages, before), detail: sayPlace(step.where, before) };
    case 'trim':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: `${saySize(step, unit)} · content ${CONTENT_WORD[step.content]}`,
      };
    case 'bleed':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: `${sayEdges(step, unit)}${ART_WORD[step.art ?? 'leave']}`,
      };
    case 'crop':
      return { act, what: sayPages(step.pages, before), detail: sayCut(step.cut, unit) };
    case 'turn':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: `${step.by === 270 ? '90° to the left' : step.by === 90 ? '90° to the right' : '180°'}${step.unless ? `, where not ${step.unless}` : ''}`,
      };
    case 'margins':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: `${sayEdges(step, unit)}${step.columns > 1 ? ` · ${step.columns} columns, ${formatLength(step.gap, unit)} apart` : ''}`,
      };
    case 'format':
      return {
        act,
        what: `${sayPages(step.pages, before)}`,
        detail: `“${formats.find(({ id }) => id === step.format)?.name ?? 'gone'}”${step.only ? ` · gives back its ${step.only.join(', ')}` : ''}`,
      };
    case 'piece':
      return { act, what: sayPages(step.pages, before), detail: `“${step.name}” · ${step.quantity} wanted` };
    case 'panel':
      return {
        act,
        what: `on ${sayPages(step.pages, before)}`,
        detail: [
          step.count > 1 ? `${step.count} panels` : '',
          step.width ? `${formatLength(step.width, unit)} wide` : '',
          step.show ? `shows ${sayPages(step.show, before)}` : 'blank',
          `folds over its ${step.folds}`,
        ]
          .filter(Boolean)
          .join(' · '),
      };
    case 'give-back':
      return { act, what: sayPages(step.pages, before), detail: sayPlace(step.where, before) };
    case 'keep':
      return {
        act: step.together ? act : 'Let go',
        what: sayPages(step.pages, before),
        detail: step.together ? '' : 'of each other',
      };
    case 'cover':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: step.parts.map((part) => COVER_WORD[part]).join(', '),
      };
    case 'split':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: `${sayGrid(step)}${step.at ? `, cut at ${formatLength(step.at, unit)}` : ''}${sayGutter(step.gutter, unit)}`,
      };
    case 'join':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: `${sayGrid(step)}${step.gap ? `, ${formatLength(step.gap, unit)} apart` : ''}`,
      };
    case 'reading-order':
      return {
        act,
        what: `of ${sayPages(step.pages, before)}`,
        detail: `${step.byNumbers ? 'worked out from the numbers on them' : sayArrangement(step.arrangement)}${sayGutter(step.gutter, unit)}`,
      };
    case 'numbers':
      return {
        act,
        what: step.series.length === 1 ? '1 series' : `${step.series.length} series`,
        detail: step.series.map((series) => saySeries(series, before)).join(', '),
      };
    case 'folio':
    case 'set':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: [
          step.kind === 'set' ? `from ${setNumber(0, step)}` : step.text,
          sayAt(step),
          step.away?.length
            ? `not on ${step.away.length === 1 ? '1 page' : `${step.away.length} pages`}`
            : '',
        ]
          .filter(Boolean)
          .join(' · '),
      };
    case 'running':
      return {
        act,
        what: sayPages(step.pages, before),
        detail: step.texts.map((each) => `${each.text}, ${sayAt(each)}`).join(' · '),
      };
    case 'ink':
      return { act, what: `“${step.from}”`, detail: `printed as “${step.to}”` };
    case 'stamp':
    case 'overlay':
      return {
        act,
        what: `${'page' in step.graphic ? `${step.graphic.area ? 'part of ' : ''}${sayPages(step.graphic.page, before)}` : `“${step.graphic.name}”`} on ${sayPages(step.pages, before)}`,
        detail: [
          step.kind === 'overlay'
            ? `${step.purpose}, at ${sayPercent(step.scale)}`
            : sayStampSize(step.size, unit),
          step.kind === 'overlay' && step.overprint ? 'overprints' : '',
          step.takeOut ? 'taken out of the list' : '',
        ]
          .filter(Boolean)
          .join(' · '),
      };
  }
}

/** A number style as its first three numbers. */
export const STYLE_WORD: Record<NumberStyle, string> = {
  none: 'none',
  D: '1 2 3',
  r: 'i ii iii',
  R: 'I II III',
  a: 'a b c',
  A: 'A B C',
};

/** A number series in a few words: `1 from page 3`. */
function saySeries({ from, style, start, prefix = '', suffix = '' }: SeriesFrom, list: PageList): string {
  const first = typeof from === 'string' ? from : describeIndexes(pickedOf(from, list).slice(0, 1), list);
  if (style === 'none') return `none from page ${first}`;
  const number =
    start === undefined ? `on in ${STYLE_WORD[style]}` : `${prefix}${inStyle(start, style)}${suffix}`;
  return `${number} from page ${first}`;
}

/** What an overlay is for, as its layer is called. */
export const PURPOSE_WORD: Record<Purpose, string> = {
  printing: 'Printing',
  cutting: 'Cutting',
  creasing: 'Creasing',
  perforating: 'Perforating',
};

/** A place across the leaf in words. */
export const PLACE_WORD: Record<LinePlace, string> = {
  outer: 'outer edge',
  inner: 'inner edge',
  centre: 'centre',
  left: 'left',
  right: 'right',
};
/** The same on the pages of a book; those of one that is bound at the head have their spine at neither side. */
export const placeWord = (across: LinePlace, { spine }: Pick<Book, 'spine'>): string =>
  PLACE_WORD[spine !== 'head' ? across : across === 'outer' ? 'right' : across === 'inner' ? 'left' : across];
const sayAt = ({ edge, across }: Pick<TextAt, 'edge' | 'across'>): string => `${edge}, ${PLACE_WORD[across]}`;

const sayStampSize = (size: StampSize, unit: Unit): string => {
  if (size.by === 'scale') return `at ${sayPercent(size.scale)}`;
  return size.by === 'width'
    ? `${formatLength(size.width, unit)} wide`
    : `${formatLength(size.height, unit)} high`;
};

const sayGrid = ({ columns, rows }: { columns: number; rows: number }): string =>
  `${columns} across, ${rows} down`;

const sayGutter = (gutter: number, unit: Unit): string => {
  if (!gutter) return '';
  return gutter > 0
    ? `, ${formatLength(gutter, unit)} left out`
    : `, ${formatLength(-gutter, unit)} shown twice`;
};

/** How scans lie one after another. */
export const SCAN_ORDER_WORD: Record<ScanOrder, string> = {
  sheets: 'sheet by sheet',
  'fronts-backs': 'fronts, then backs',
  'fronts-backs-reversed': 'fronts, then backs from the last',
};

/** What scans show, in words. */
export function sayArrangement(arrangement: Arrangement): string {
  switch (arrangement.by) {
    case 'stitched':
      return `stitched sheets, ${SCAN_ORDER_WORD[arrangement.scans]}`;
    case 'signature':
      return `signatures of ${arrangement.pages} pages`;
    case 'spreads':
      return 'spreads in order';
    case 'own':
      return 'by an own list';
  }
}

const ART_WORD = { leave: '', mirror: ' · edge mirrored', enlarge: ' · art enlarged' } as const;

/** What happened to the content, as a step's detail says it. */
const CONTENT_WORD = {
  hold: 'keeps its size',
  fit: 'fitted',
  fill: 'filling',
  stretch: 'stretched',
} as const;

const sayTyped = (text: string): string => {
  if (/^all$/i.test(text)) return 'all pages';
  if (/^panels$/i.test(text)) return 'all panels';
  return /^(\d+|last|"[^"]*")$/i.test(text) ? `page ${text}` : `pages ${text}`;
};

/** Pages of a step in words; selected ones by where they are now. */
export function sayPages(selection: Selection, list: PageList): string {
  if (typeof selection === 'string') return sayTyped(selection.trim());
  const ids = new Set(selection.ids);
  const indexes = facesOf(list).flatMap((page, index) => (ids.has(page.id) ? [index] : []));
  if (!indexes.length) return 'pages that are gone';
  const said = describeIndexes(indexes, list);
  return said === 'panels' ? 'all panels' : `${indexes.length === 1 ? 'page' : 'pages'} ${said}`;
}

/** A place in words: `before page 3`. */
export function sayPlace(place: Place, list: PageList): string {
  if (!('pages' in place)) return place.at === 'start' ? 'at the start' : 'at the end';
  const pages = sayPages(place.pages, list);
  return `${place.at} ${pages}`;
}

/** Lengths at the four edges of the book in words. */
export function sayEdges({ head, foot, spine, fore }: Edges, unit: Unit): string {
  if (head === foot && foot === spine && spine === fore) return `${formatLength(head, unit)} all round`;
  return sayFour(unit, { head, foot, spine, 'fore edge': fore });
}

function sayCut(cut: Cut, unit: Unit): string {
  if (cut.by === 'ink')
    return `to the ink${cut.padding ? `, ${formatLength(cut.padding, unit)} round it` : ''}, ${cut.each ? 'each by its own' : 'one for all'}`;
  return cut.by === 'edge'
    ? `off ${sayFour(unit, { head: cut.head, foot: cut.foot, spine: cut.spine, 'fore edge': cut.fore })}`
    : `off ${sayFour(unit, { head: cut.head, foot: cut.foot, left: cut.left, right: cut.right })}`;
}

const sayFour = (unit: Unit, lengths: Record<string, number>): string =>
  `${Object.entries(lengths)
    .map(([edge, points]) => `${edge} ${formatFigure(points, unit)}`)
    .join(', ')} ${unit === 'pica' ? '' : UNIT_SIGN[unit]}`.trim();
