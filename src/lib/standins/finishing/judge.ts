import { firstOf, keysOf, recordOf } from '../../core/entries';
import type { FinishedPage } from '../../core/finish/line/finished';
import type { FinishPlan } from '../../core/finish/operations';
import {
  cutByPush,
  FARTHEST,
  isOff,
  MOST_NARROWED,
  MOST_OFF,
  type PageVerdict,
  type Verdict,
} from '../../core/finish/proof';
import { heightOf, intersect, shift, sizeBox, widthOf, type Box, type Sides } from '../../core/measure/box';
import { applyToBox, compose, invert, translate, type Matrix } from '../../core/measure/matrix';
import { mm } from '../../core/measure/unit';
import type { Gray } from '../../raster/gray';
import { difference, differingParts, isWhite, likeness, shiftOf, strays, type Dots } from './picture';
import type { Drawable, Wanted } from './drawable';

/** A finished page, with what is printed there and the way from the page to the dots of that picture. */
export interface Met {
  product: number;
  copy: number;
  index: number;
  page: FinishedPage;
  picture: Gray;
  toDots: Matrix;
  /** From the page to the side that it was printed on, in points; and that side, if there is one. */
  toSide: Matrix;
  side: Drawable | undefined;
  /** Dots a point. */
  scale: number;
  /** The same seen more closely, or a part of the page. */
  closer(part?: Box): Met;
}

/** So many parts of a page are looked at more closely, before all of it is. */
const MOST_PARTS = 40;
/** So many dots of a page may stray: edges of the same, drawn twice, are never quite alike. */
const FEW = 3;
/** How fine the small pictures are by which pages are told apart. */
const SMALL = { width: 48, height: 64 };
/** How many of the likeliest are looked at closely where they should be, since pages with little on them are all alike; and moved. */
const [CLOSELY, MOVED] = [96, 8];

/** Ways in which a page can be met that is not upright: from the page to where it lies in a page of the same size. */
const WAYS: readonly {
  is: 'upright' | 'turned' | 'mirrored';
  way: (width: number, height: number) => Matrix;
}[] = [
  { is: 'upright', way: () => [1, 0, 0, 1, 0, 0] },
  { is: 'turned', way: (width, height) => [-1, 0, 0, -1, width, height] },
  { is: 'mirrored', way: (width) => [-1, 0, 0, 1, width, 0] },
  { is: 'mirrored', way: (_, height) => [1, 0, 0, -1, 0, height] },
];

/** Tells what is right and what is wrong with finished pages. */
export class Judge {
  private readonly small = new Map<string, Gray>();

  constructor(
    private readonly made: FinishPlan['made'],
    private readonly wantedOf: (product: number) => readonly Wanted[],
  ) {}

  verdictOf(met: Met): PageVerdict {
    const { product, copy, index, page } = met;
    return {
      product,
      copy,
      page: index,
      at: page.at,
      sheet: page.sheet,
      face: page.face,
      verdict: this.judged(met, this.wantedOf(product)[index]),
    };
  }

  /** What is met and what was intended, upright and of one size, this many dots high. */
  pictured({ product, index, page, side, toSide }: Met, high: number): { met: Gray; meant: Gray } {
    const scale = high / page.size.height;
    const wide = Math.max(1, Math.round(page.size.width * scale));
    const small: Matrix = [scale, 0, 0, -scale, 0, high];
    const white: Gray = { width: wide, height: high, light: new Uint8Array(wide * high).fill(255) };
    const wanted = this.wantedOf(product)[index];
    return {
      met: side ? side.draw(compose(invert(toSide), small), wide, high) : white,
      meant: wanted
        ? wanted.page.draw(compose(firstOf(placesFor(page, partOf(wanted), this.made)), small), wide, high)
        : white,
    };
  }

  private judged(met: Met, wanted: Wanted): Verdict {
    if (!wanted) {
      if (isBlank(met)) return { is: 'same', by: { x: 0, y: 0 } };
      return this.elsewhere(met) ?? { is: 'different', where: this.onPage(met, inkIn(met.picture)) };
    }
    // Words of the sheet's own are in no page that they could be held against.
    if (wanted.worded) return isBlank(met) ? { is: 'missing' } : { is: 'same', by: { x: 0, y: 0 } };
    const places = placesFor(met.page, partOf(wanted), this.made);
    for (const place of places)
      if (this.isSame(met, wanted, place)) return this.right(met, wanted, places, place, { x: 0, y: 0 });
    return this.closely(met.closer(), wanted, places);
  }

  /**
   * Whether what is met is what is wanted at a place, to the dot. Where a few parts differ, each is looked at more closely: a
   * renderer puts letters on whole dots, and a letter between two dots may come out on either.
   */
  private isSame(met: Met, wanted: NonNullable<Wanted>, place: Matrix): boolean {
    const { picture, drawn, part } = this.laid(met, wanted, place);
    if (isEmpty(part)) return false;
    const parts = differingParts(picture, drawn, part, MOST_PARTS);
    return (
      !!parts &&
      parts.every((dots) => {
        const close = this.laid(met.closer(this.onPage(met, dots)), wanted, place);
        return !isEmpty(close.part) && difference(close.picture, close.drawn, close.part, 0).dots === 0;
      })
    );
  }

  /** A page that is not quite what it is to be: moved, or with letters a dot further, or something else. */
  private closely(met: Met, wanted: NonNullable<Wanted>, places: readonly Matrix[]): Verdict {
    let nearest: { dots: number; where: Dots } | undefined;
    for (const place of places) {
      const by = this.shiftFrom(met, wanted, place);
      const found = this.compare(met, wanted, translated(place, by), strays);
      if (found.dots <= FEW) return this.right(met, wanted, places, place, by);
      if (!nearest || found.dots < nearest.dots) nearest = found;
    }
    if (isBlank(met)) return { is: 'missing' };
    return (
      this.elsewhere(met) ?? {
        is: 'different',
        where: this.onPage(met, nearest?.where ?? inkIn(met.picture)),
      }
    );
  }

  /** A page that is what it is to be, moved by so much from where such a page may stand: whether it is where it is to be, and all there. */
  private right(
    { page }: Met,
    wanted: NonNullable<Wanted>,
    places: readonly Matrix[],
    place: Matrix,
    moved: { x: number; y: number },
  ): Verdict {
    const lies = applyToBox(translated(place, moved), partOf(wanted));
    const meant = applyToBox(firstOf(places), partOf(wanted));
    const by = { x: lies.x0 - meant.x0, y: lies.y0 - meant.y0 };
    if (isOff(moved, pushOf(page, spineOf(page, this.made)))) return { is: 'shifted', by };
    const over: Sides = {
      left: -lies.x0,
      right: lies.x1 - page.size.width,
      head: lies.y1 - page.size.height,
      foot: -lies.y0,
    };
    // Inner leaves end before the spine, and others may have paper between pages there.
    const spine = spineOf(page, this.made);
    if (spine) {
      over[spine] = 0;
      const fore = OPPOSITE[spine];
      over[fore] -= cutByPush(over[fore], page.pushed);
    }
    const most = (sign: 1 | -1): Sides => recordOf(keysOf(over), (edge) => Math.max(0, sign * over[edge]));
    const [cut, white] = [most(1), most(-1)];
    if (Math.max(...Object.values(cut)) > MOST_OFF) return { is: 'cut', by: cut };
    if (Math.max(...Object.values(white)) > MOST_OFF) return { is: 'white', by: white };
    return { is: 'same', by };
  }

  /** Draws what is wanted where a finished page is to have it, and counts the dots that differ. */
  private compare(
    met: Met,
    wanted: NonNullable<Wanted>,
    place: Matrix,
    how: typeof difference,
    most?: number,
  ): { dots: number; where: Dots } {
    const { picture, drawn, part } = this.laid(met, wanted, place);
    // Where no dot can be compared, nothing is known to be the same.
    return isEmpty(part) ? { dots: Infinity, where: wholeOf(picture) } : how(picture, drawn, part, most);
  }

  /** What is wanted, drawn over what is met, and the part of both that can be compared. */
  private laid(
    { picture, toDots, page }: Met,
    wanted: NonNullable<Wanted>,
    place: Matrix,
  ): { picture: Gray; drawn: Gray; part: Dots } {
    const shown = intersect(applyToBox(place, partOf(wanted)), sizeBox(page.size));
    const drawn = wanted.page.draw(compose(place, toDots), picture.width, picture.height);
    return { picture, drawn, part: inner(applyToBox(toDots, shown), picture) };
  }

  /** How far what is met lies from where it is to be, on the page. */
  private shiftFrom(met: Met, wanted: NonNullable<Wanted>, place: Matrix): { x: number; y: number } {
    const { picture, drawn, part } = this.laid(met, wanted, place);
    const { x, y } = shiftOf(picture, drawn, part, FARTHEST * met.scale);
    // From dots on the side to points on the page: turned back, without moving.
    const [a, b, c, d] = invert(met.toDots);
    return { x: a * x + c * y, y: b * x + d * y };
  }

  /** Which page is met in the place of another one, or how the right one lies there; undefined if it is none. */
  private elsewhere(met: Met): Verdict | undefined {
    const all = this.wantedOf(met.product);
    const here = upright(met);
    const tried = all.flatMap((wanted, n) => {
      if (!wanted) return [];
      const { width, height } = partSize(wanted);
      // Pages of another size are told apart by it.
      if (Math.abs(width - met.page.size.width) + Math.abs(height - met.page.size.height) > mm(20)) return [];
      return WAYS.map(({ is, way }, k) => ({
        n,
        is,
        way: way(width, height),
        wanted,
        alike: likeness(here, this.smallOf(met.product, n, k, wanted, way(width, height))),
      }));
    });
    const likeliest = tried.sort((a, b) => b.alike - a.alike).slice(0, CLOSELY);
    const placed = likeliest.map((each) => ({
      ...each,
      place: compose(each.way, firstOf(placesFor(met.page, partOf(each.wanted), this.made))),
    }));
    const inPlace = placed.find(({ wanted, place }) => this.isThere(met, wanted, place));
    if (inPlace) return metAs(inPlace.n, inPlace.is, met.index, { x: 0, y: 0 });
    for (const { n, is, wanted, place } of placed.slice(0, MOVED)) {
      const by = this.shiftFrom(met, wanted, place);
      if (this.isThere(met, wanted, translated(place, by))) return metAs(n, is, met.index, by);
    }
    return undefined;
  }

  /** Whether a page is met at a place. */
  private isThere(met: Met, wanted: NonNullable<Wanted>, place: Matrix): boolean {
    return this.compare(met, wanted, place, strays, FEW).dots <= FEW;
  }

  /** A page as small as is enough to know it again, in one of the ways in which it may be met. */
  private smallOf(product: number, n: number, way: number, wanted: NonNullable<Wanted>, by: Matrix): Gray {
    const key = `${product} ${n} ${way}`;
    const known = this.small.get(key);
    if (known) return known;
    const { width, height } = partSize(wanted);
    const made = wanted.page.draw(
      compose(compose(wanted.part ? translate(-wanted.part.x0, -wanted.part.y0) : [1, 0, 0, 1, 0, 0], by), [
        SMALL.width / width,
        0,
        0,
        -SMALL.height / height,
        0,
        SMALL.height,
      ]),
      SMALL.width,
      SMALL.height,
    );
    this.small.set(key, made);
    return made;
  }

  private onPage({ toDots }: Met, where: Dots): Box {
    return applyToBox(invert(toDots), where);
  }
}

const partOf = ({ page, part }: NonNullable<Wanted>): Box => part ?? sizeBox(page.size);
const partSize = (wanted: NonNullable<Wanted>) => ({
  width: widthOf(partOf(wanted)),
  height: heightOf(partOf(wanted)),
});
const translated = (place: Matrix, { x, y }: { x: number; y: number }): Matrix =>
  compose(place, translate(x, y));

function metAs(
  n: number,
  is: (typeof WAYS)[number]['is'],
  index: number,
  by: { x: number; y: number },
): Verdict {
  if (is === 'mirrored') return { is: 'mirrored' };
  if (n !== index) return { is: 'other', page: n, turn: is === 'turned' ? 180 : 0 };
  return is === 'turned' ? { is: 'turned', turn: 180 } : { is: 'shifted', by };
}

/** How far, and which way, the leaves around a page push it. */
function pushOf({ pushed = 0 }: FinishedPage, spine: keyof Sides | undefined): { x: number; y: number } {
  const across = { left: 1, right: -1, head: 0, foot: 0, none: 0 }[spine ?? 'none'];
  const upwards = { left: 0, right: 0, head: -1, foot: 1, none: 0 }[spine ?? 'none'];
  return { x: across * pushed, y: upwards * pushed };
}

const OPPOSITE = { left: 'right', right: 'left', head: 'foot', foot: 'head' } as const;
/** The side of a page at which it is bound; none of loose ones. */
export function spineOf({ at }: FinishedPage, { reads, spine }: FinishPlan['made']): keyof Sides | undefined {
  if (reads !== 'bound' || 'cover' in at) return undefined;
  const isFront = at.face === 'front';
  if (spine === 'head') return isFront ? 'head' : 'foot';
  return (spine === 'left') === isFront ? 'left' : 'right';
}

/** Where a page may stand on a finished one, the likeliest first: at its trimmed edges; at its spine; in the middle. */
function placesFor(page: FinishedPage, part: Box, made: FinishPlan['made']): Matrix[] {
  const more = { x: page.size.width - widthOf(part), y: page.size.height - heightOf(part) };
  const spine = spineOf(page, made);
  const at = (x: number, y: number) => translate(x * more.x - part.x0, y * more.y - part.y0);
  const places = {
    left: [at(1, 1), at(0, 1)],
    right: [at(0, 1), at(1, 1)],
    head: [at(0, 0), at(0, 1)],
    foot: [at(0, 1), at(0, 0)],
    none: [at(0.5, 0.5)],
  }[spine ?? 'none'];
  const known = new Set<string>();
  return [...places, at(0.5, 0.5), ...narrowed(page, part, spine)].filter((place) => {
    const key = place.map((n) => n.toFixed(3)).join();
    return !known.has(key) && known.add(key);
  });
}

/** Where an inner leaf that was made narrower stands. */
function narrowed({ size }: FinishedPage, part: Box, spine: keyof Sides | undefined): Matrix[] {
  if (!spine) return [];
  const isAcross = spine === 'left' || spine === 'right';
  const [is, was] = isAcross ? [size.width, widthOf(part)] : [size.height, heightOf(part)];
  if (is >= was || was - is > MOST_NARROWED) return [];
  const by = is / was;
  return [compose(translate(-part.x0, -part.y0), isAcross ? [by, 0, 0, 1, 0, 0] : [1, 0, 0, by, 0, 0])];
}

const wholeOf = ({ width, height }: Gray): Dots => ({ x0: 0, y0: 0, x1: width, y1: height });

const isEmpty = ({ x0, y0, x1, y1 }: Dots): boolean => x1 <= x0 || y1 <= y0;

/** The dots that lie wholly inside a box: those at its edges are of both sides. */
function inner(box: Box, { width, height }: Gray): Dots {
  return {
    x0: Math.max(0, Math.ceil(box.x0) + 1),
    y0: Math.max(0, Math.ceil(box.y0) + 1),
    x1: Math.min(width, Math.floor(box.x1) - 1),
    y1: Math.min(height, Math.floor(box.y1) - 1),
  };
}

/** Whether nothing is printed on a page. Dots at its edges are of the pages beside it, too, and are looked at more closely. */
function isBlank(met: Met): boolean {
  const isWhiteInside = ({ picture, toDots, page }: Met) =>
    isWhite(picture, inner(applyToBox(toDots, sizeBox(page.size)), picture));
  return isWhite(met.picture, wholeOf(met.picture)) || (isWhiteInside(met) && isWhiteInside(met.closer()));
}

/** What is printed in a picture. */
function inkIn(picture: Gray): Dots {
  const white: Gray = { ...picture, light: new Uint8Array(picture.light.length).fill(255) };
  return difference(picture, white, wholeOf(picture)).where;
}

/** What is met, upright and small. */
function upright({ picture, toDots, page }: Met): Gray {
  const { width, height } = SMALL;
  const small: Gray = { width, height, light: new Uint8Array(width * height).fill(255) };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const cell = applyToBox(
        toDots,
        shift(
          sizeBox({ width: page.size.width / width, height: page.size.height / height }),
          (x * page.size.width) / width,
          ((height - 1 - y) * page.size.height) / height,
        ),
      );
      let [sum, count] = [0, 0];
      for (let v = Math.max(0, Math.floor(cell.y0)); v < Math.min(picture.height, Math.ceil(cell.y1)); v++)
        for (let u = Math.max(0, Math.floor(cell.x0)); u < Math.min(picture.width, Math.ceil(cell.x1)); u++) {
          sum += picture.light[v * picture.width + u]!;
          count++;
        }
      if (count) small.light[y * width + x] = sum / count;
    }
  return small;
}
