import { hasArea, intersect, sizeBox, type Box } from '../measure/box';
import { applyToBox, compose, translate, type Matrix } from '../measure/matrix';
import { textHeight, textWidth } from '../numbers/faceMetrics';
import type { Setting } from '../model/faces';
import { placeLaid } from '../numbers/placeLaid';
import type { Laid } from '../model/laid';
import { placeLines } from '../numbers/placeLines';
import { artsOf, bleedBox } from '../pages/page';
import type { Art } from '../model/art';
import type { Page, Side } from '../model/page';
import { BLACK } from '../ink/colour';
import type { ArtItem, Item, Surface, TextItem } from '../model/surface';
import { TOLERANCES } from '../measure/tolerances';

/** A page by itself, with its bleed; the origin is the trim's lower left corner. */
export function pageSurface(page: Page, side: Side): Surface {
  const bleed = bleedBox(page, side);
  return {
    media: bleed,
    bleed,
    trim: sizeBox(page.trim),
    items: [
      ...laidItems(page, side, bleed, true),
      ...(page.art ? artsOf(page).flatMap((art) => artItems(page, art, bleed)) : wordsOf(page)),
      ...laidItems(page, side, bleed, false),
      ...linesOf(page, side),
    ],
  };
}

/** Folios, running lines and numbered sets that show on a page. */
function linesOf(page: Page, side: Side): Item[] {
  return (page.matter ?? []).flatMap((matter): Item[] => {
    if (matter.hidden) return [];
    const { texts, rules } = placeLines(matter, page, side);
    return [...texts.map(({ item }) => item), ...rules];
  });
}

/** Stamps and overlays before or behind the art, as far as the bleed. */
function laidItems(page: Page, side: Side, bleed: Box, behind: boolean): ArtItem[] {
  return (page.laid ?? []).flatMap((laid): ArtItem[] => {
    if (!!laid.behind !== behind) return [];
    const place = placeLaid(laid, page, side);
    return laid.arts.map((art) => laidItem(art, laid, compose(art.place, place), bleed));
  });
}

function laidItem({ source, index, reach }: Art, laid: Laid, matrix: Matrix, clip: Box): ArtItem {
  const { opacity, layer, overprint, behind } = laid;
  return {
    kind: 'art',
    source,
    index,
    matrix,
    clip,
    laid: {
      reach,
      ...(opacity !== undefined && opacity < 1 ? { opacity } : {}),
      ...(layer ? { layer } : {}),
      ...(overprint ? { overprint } : {}),
      ...(behind ? { behind } : {}),
    },
  };
}

/** Words on blanks are as large as this, in points, where they fit. By practice. */
const WORDS: Setting = { face: 'Source Sans 3', weight: 'regular', size: 11 };
/** How much of the page's width they may take. */
const LINE = 0.86;

/** The words on a blank, their capitals in its middle. */
function wordsOf({ words, wordSize = WORDS.size, wordInk = BLACK, trim }: Page): TextItem[] {
  if (!words) return [];
  const size = Math.min(wordSize, (WORDS.size * LINE * trim.width) / textWidth(words, WORDS));
  const { above } = textHeight({ ...WORDS, size });
  return [
    {
      ...WORDS,
      kind: 'text',
      text: words,
      size,
      ink: wordInk,
      align: 'centre',
      matrix: translate(trim.width / 2, (trim.height - above) / 2),
    },
  ];
}

/** The art of a page within its bleed and, where it is to be mirrored, its reflections in the bleed that it does not reach. */
function artItems(page: Page, art: Art, bleed: Box): ArtItem[] {
  const reach = applyToBox(art.place, art.reach);
  const item = (matrix: Matrix, within: Box): ArtItem[] => {
    const clip = intersect(bleed, within);
    if (!hasArea(clip)) return [];
    return [{ kind: 'art', source: art.source, index: art.index, matrix, clip }];
  };
  const own = item(art.place, reach);
  if (!page.mirrored || page.more) return own;
  const across = strips(reach.x0, reach.x1, bleed.x0, bleed.x1, page.trim.width);
  const up = strips(reach.y0, reach.y1, bleed.y0, bleed.y1, page.trim.height);
  const mirrored = across.flatMap((x) =>
    up.flatMap((y) => {
      if (!x.flipped && !y.flipped) return [];
      const flip: Matrix = [x.scale, 0, 0, y.scale, x.move, y.move];
      return item(compose(art.place, flip), { x0: x.from, x1: x.to, y0: y.from, y1: y.to });
    }),
  );
  return [...own, ...mirrored];
}

interface Strip {
  from: number;
  to: number;
  flipped: boolean;
  scale: 1 | -1;
  move: number;
}

/** Along one axis: the art itself, and its reflections about those of its ends that reach the trim but not the bleed. */
function strips(artFrom: number, artTo: number, bleedFrom: number, bleedTo: number, trim: number): Strip[] {
  const found: Strip[] = [{ from: artFrom, to: artTo, flipped: false, scale: 1, move: 0 }];
  const mirror = (at: number, from: number, to: number) =>
    found.push({ from, to, flipped: true, scale: -1, move: 2 * at });
  if (artFrom <= TOLERANCES.reach && artFrom - bleedFrom > TOLERANCES.place)
    mirror(artFrom, bleedFrom, artFrom);
  if (artTo >= trim - TOLERANCES.reach && bleedTo - artTo > TOLERANCES.place) mirror(artTo, artTo, bleedTo);
  return found;
}
