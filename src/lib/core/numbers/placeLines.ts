import { bounds, heightOf, sizeBox, widthOf, type Box } from '../measure/box';
import { translate } from '../measure/matrix';
import { columnsOf } from '../pages/margins';
import { spineAt } from '../pages/page';
import type { Page, Side } from '../model/page';
import type { LineItem, TextItem } from '../model/surface';
import { textHeight, textWidth } from './faceMetrics';
import type { Setting } from '../model/faces';
import type { Lines, LinePlace, Matter, TextAt } from '../model/lines';
import { fillPattern } from './pattern';
import { entryAt } from '../entries';

/** One text where it stands on a page. */
export interface PlacedText {
  item: TextItem;
  /** From its first to its last letter, from the depth of a p to the height of an H; page space. */
  box: Box;
  at: TextAt;
}
export interface PlacedLines {
  texts: PlacedText[];
  rules: LineItem[];
}

/** Where across a page a place is, and at which of its sides. */
export interface Corner {
  x: 'left' | 'centre' | 'right';
  y: 'head' | 'foot';
}

/**
 * The place on a page lying on a side of the spine. Head and foot are the page's own, as it is read. The sides of a book bound
 * at the head are alike: outer is the right and inner the left of every page, so that both faces of a leaf have it in one place.
 */
export function cornerOf({ edge, across }: Pick<TextAt, 'edge' | 'across'>, side: Side): Corner {
  const at = spineAt(side);
  const spine = at === 'left' || at === 'right' ? at : 'left';
  const fore = spine === 'left' ? 'right' : 'left';
  return { x: across === 'outer' ? fore : across === 'inner' ? spine : across, y: edge };
}

/** The box that lines are measured from: the trim, or what lies between the margins if there are any. */
export function frameOf(page: Page, side: Side, from: Lines['from']): Box {
  const columns = from === 'margin' ? columnsOf(page, side) : [];
  return columns.length ? bounds(columns) : sizeBox(page.trim);
}

/** Lines as they are set on a page that grew. */
const scaled = ({ lines, scale = 1 }: Pick<Matter, 'lines' | 'scale'>): Lines =>
  scale === 1
    ? lines
    : {
        ...lines,
        x: lines.x * scale,
        y: lines.y * scale,
        size: lines.size * scale,
        ...(lines.rule
          ? { rule: { ...lines.rule, width: lines.rule.width * scale, gap: lines.rule.gap * scale } }
          : {}),
      };

/** Where a text's anchor and box are, given how it is set and how wide it is. */
export function placeText(
  lines: Pick<Lines, 'from' | 'x' | 'y'> & Setting,
  at: Pick<TextAt, 'edge' | 'across'>,
  width: number,
  page: Page,
  side: Side,
): { x: number; y: number; box: Box; align: Corner['x'] } {
  const corner = cornerOf(at, side);
  const frame = frameOf(page, side, lines.from);
  const { above, below } = textHeight(lines);
  const outwards = lines.from === 'margin';
  const toFore = cornerOf({ edge: 'foot', across: 'outer' }, side).x === 'left' ? -1 : 1;
  const x = {
    left: frame.x0 + lines.x,
    right: frame.x1 - lines.x,
    centre: (frame.x0 + frame.x1) / 2 + toFore * lines.x,
  }[corner.x];
  const y =
    corner.y === 'foot'
      ? outwards
        ? frame.y0 - lines.y - above
        : frame.y0 + lines.y
      : outwards
        ? frame.y1 + lines.y
        : frame.y1 - lines.y - above;
  const x0 = x - { left: 0, centre: 0.5, right: 1 }[corner.x] * width;
  return { x, y, align: corner.x, box: { x0, x1: x0 + width, y0: y - below, y1: y + above } };
}

/** The inverse of `placeText`: the offsets that put a text's box with its lower left corner at a point. */
export function offsetsAt(
  to: { x: number; y: number },
  lines: Pick<Lines, 'from'> & Setting,
  at: Pick<TextAt, 'edge' | 'across'>,
  width: number,
  page: Page,
  side: Side,
): { x: number; y: number } {
  const placed = placeText({ ...lines, x: 0, y: 0 }, at, width, page, side);
  const moved = { x: to.x - placed.box.x0, y: to.y - placed.box.y0 };
  const unit = placeText({ ...lines, x: 1, y: 1 }, at, width, page, side);
  return { x: moved.x / (unit.x - placed.x), y: moved.y / (unit.y - placed.y) };
}

/** What a text says on a page; undefined if it says nothing. */
function wordsOf(
  { text, left, first }: TextAt,
  { values, first: isFirst }: Matter,
  side: Side,
): string | undefined {
  const isLeft = side === 'left' || side === 'upper';
  const pattern = isFirst && first !== undefined ? first : isLeft && left !== undefined ? left : text;
  return pattern.trim() ? fillPattern(pattern, values) : undefined;
}

/** Lines as they stand on a page, whether they show there or not. */
export function placeLines(matter: Matter, page: Page, side: Side): PlacedLines {
  const lines = scaled(matter);
  const { face, weight, size, ink } = lines;
  const texts = lines.texts.flatMap((at): PlacedText[] => {
    const text = wordsOf(at, matter, side);
    if (text === undefined) return [];
    const { x, y, box, align } = placeText(lines, at, textWidth(text, lines), page, side);
    return [
      { at, box, item: { kind: 'text', text, face, weight, size, ink, align, matrix: translate(x, y) } },
    ];
  });
  return { texts, rules: lines.rule ? rulesOf(texts, lines, lines.rule, page, side) : [] };
}

/** A rule for each edge that has a text, as far as the lines may reach. */
function rulesOf(
  texts: readonly PlacedText[],
  lines: Lines,
  rule: NonNullable<Lines['rule']>,
  page: Page,
  side: Side,
): LineItem[] {
  const frame = frameOf(page, side, lines.from);
  const [x0, x1] = [frame.x0 + lines.x, frame.x1 - lines.x];
  const edges = new Map(texts.map((text) => [cornerOf(text.at, side).y, text]));
  return [...edges.values()].map(({ box, item }): LineItem => {
    const base = item.matrix[5];
    const off = rule.gap + rule.width / 2;
    const y = rule.at === 'over' ? box.y1 + off : base - off;
    return { kind: 'line', x0, y0: y, x1, y1: y, width: rule.width, dash: [], ink: lines.ink };
  });
}

/** The place nearest to a point on a page: by halves up, by thirds across. */
export function nearestPlace(
  at: { x: number; y: number },
  { trim }: Page,
  side: Side,
): { edge: TextAt['edge']; across: LinePlace } {
  const box = sizeBox(trim);
  const third = Math.min(2, Math.max(0, Math.floor((3 * at.x) / widthOf(box))));
  const wanted = {
    x: entryAt(['left', 'centre', 'right'] as const, third),
    y: at.y > heightOf(box) / 2 ? 'head' : 'foot',
  };
  for (const edge of ['head', 'foot'] as const)
    for (const across of ['outer', 'centre', 'inner'] as const) {
      const corner = cornerOf({ edge, across }, side);
      if (corner.x === wanted.x && corner.y === wanted.y) return { edge, across };
    }
  return { edge: 'foot', across: 'outer' };
}
