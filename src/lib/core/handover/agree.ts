import { contains, heightOf, intersect, sizeBox, widthOf, type Box, type Size } from '../measure/box';
import { applyToBox, applyToPoint, compose, invert, translate, type Matrix } from '../measure/matrix';
import { faceLabels } from '../numbers/labels';
import { inkName, inksOf } from '../numbers/jobInks';
import { artsOf, facesOf, laidOn, sideAt } from '../pages/page';
import type { Draw, Shown, Written, WrittenPage } from '../model/written';
import type { Page } from '../model/page';
import type { Item, Surface } from '../model/surface';
import type { Surveys } from '../model/survey';
import { sidesOf, type SheetPlan } from '../sheets/plan';
import { sheetSurface } from '../sheets/sheetSurface';
import type { Cuttable, Part } from './parts';
import { entryAt, entryOf } from '../entries';
import { TOLERANCES } from '../measure/tolerances';
import { pageSurface } from '../surface/pageSurface';

/** A page of a source, drawn where it is asked: from the lower left corner of the written page, as that is seen. */
export interface AskedDraw extends Omit<Draw, 'content'> {
  /** Null where the survey does not tell it from other content. */
  content: number | null;
  clip: Box;
  /** What the source page has, in its own user space. */
  media: Box;
}
export interface AskedShown extends Omit<Shown, 'draws'> {
  draws: readonly AskedDraw[];
}
/** What was asked of one page of a file: sizes in points, as the page is seen. */
interface AskedPage {
  trim: Size;
  media: Size;
  label?: string;
  /** What it shows; missing where that cannot be told from what else is on it. */
  shown?: AskedShown | undefined;
  /** Nothing is missing in what it is made of. */
  whole: boolean;
}
/** What was asked of a file. */
export interface Asked {
  pages: readonly AskedPage[];
  /** Spot inks that it must have, and all that it may have. */
  spots: { all: readonly string[]; may: readonly string[] };
}

/** A way in which a file that was written is not what was asked; `page` from 1. */
export type Disagreement =
  | { of: 'pages'; asked: number; written: number }
  | { of: 'trim' | 'media'; page: number; asked: Size; written: Size }
  | { of: 'label'; page: number; asked: string; written: string }
  | { of: 'draws' | 'texts'; page: number; asked: number; written: number }
  | { of: 'shows' | 'lies' | 'lost'; page: number }
  | { of: 'ink-lost' | 'ink-strange'; name: string };

/** The spot inks of a job: all of them, and those on given pages. */
function spotsIn({ list, surveys, docket }: Cuttable) {
  const spotsAt = new Map<string, Set<string>>();
  const may: string[] = [];
  for (const { kind, name, pages: on } of inksOf(list, surveys, docket)) {
    if (kind !== 'spot') continue;
    may.push(name);
    for (const id of on) spotsAt.set(id, (spotsAt.get(id) ?? new Set()).add(name));
  }
  return {
    may,
    spotsOn: (ids: readonly string[]) => [...new Set(ids.flatMap((id) => [...(spotsAt.get(id) ?? [])]))],
  };
}

/** What a file of an output must be when it is written, by the pages or sides that it has. */
export type AskedOf = (part: Pick<Part, 'pages'>) => Asked;

/** Whether nothing is missing in what pages are made of. */
const areWhole = (pages: readonly Page[], surveys: Surveys): boolean =>
  pages.every((page) =>
    [...artsOf(page), ...laidOn(page)].every(
      ({ source, index }) => surveys[source]?.pages[index]?.incomplete === undefined,
    ),
  );

/** What a surface shows. Content that says nothing is left aside, unless some cannot be told from it. */
function shownOn({ media, items }: Pick<Surface, 'media' | 'items'>, surveys: Surveys): AskedShown {
  const toCorner = translate(-media.x0, -media.y0);
  const draws = items.flatMap((item): AskedDraw[] => {
    const survey = item.kind === 'art' ? surveys[item.source] : undefined;
    if (item.kind !== 'art' || !survey) return [];
    const { toUpright, boxes } = entryAt(survey.pages, item.index);
    const { clip, matrix, laid } = item;
    return [
      {
        content: survey.contents?.[item.index] ?? null,
        matrix: compose(compose(toUpright, matrix), toCorner),
        clip: applyToBox(toCorner, laid ? intersect(clip, applyToBox(matrix, laid.reach)) : clip),
        media: applyToBox(invert(toUpright), boxes.media),
      },
    ];
  });
  const texts = items.filter(({ kind }) => kind === 'text').length;
  return { draws: areTold(draws) ? draws.filter(saysSomething) : draws, texts };
}
const areTold = (draws: readonly Pick<AskedDraw, 'content'>[]): boolean =>
  draws.every(({ content }) => content !== null);
const saysSomething = ({ content }: Pick<AskedDraw, 'content'>): boolean => content !== NOTHING;
/** The sum of content that says nothing. */
const NOTHING = 0;

/** What a file of pages in reading order must be. */
export function askedOfPages(work: Cuttable): AskedOf {
  const { list, surveys } = work;
  const { may, spotsOn } = spotsIn(work);
  const faces = facesOf(list);
  const labels = faceLabels(list);
  return ({ pages }) => ({
    pages: pages.map((index) => {
      const page = entryAt(faces, index);
      const surface = pageSurface(page, sideAt(index, list));
      const shown = shownOn(surface, surveys);
      return {
        trim: page.trim,
        media: { width: widthOf(surface.bleed), height: heightOf(surface.bleed) },
        label: entryOf(labels, page.id),
        // A page's own content is found among what else is put there by what it is.
        shown: areTold(shown.draws) ? shown : undefined,
        whole: areWhole([page], surveys),
      };
    }),
    spots: { all: spotsOn(pages.map((index) => entryAt(faces, index).id)), may },
  });
}

/** What a file of the sides of sheets must be. */
export function askedOfSides(work: Cuttable, shown: SheetPlan): AskedOf {
  const { list, surveys } = work;
  const { may, spotsOn } = spotsIn(work);
  const sides = sidesOf(shown);
  return ({ pages }) => {
    const mine = pages.map((n) => entryAt(sides, n));
    const printed = new Set(['All']);
    return {
      pages: mine.map(({ drawn, size, sheet, side }) => {
        const surface = sheetSurface(drawn, size, shown.weight);
        const { trim, media, items } = surface;
        addSpots(items, printed, list.inks);
        return {
          trim: { width: widthOf(trim), height: heightOf(trim) },
          media: { width: widthOf(media), height: heightOf(media) },
          label: `${sheet} ${side}`,
          shown: shownOn(surface, surveys),
          whole: areWhole(
            drawn.cells.flatMap(({ page }) => page ?? []),
            surveys,
          ),
        };
      }),
      spots: {
        all: spotsOn(mine.flatMap(({ drawn }) => drawn.cells.flatMap(({ page }) => (page ? [page.id] : [])))),
        may: [...may, ...printed],
      },
    };
  };
}

/** The spot inks that marks and lines of text are printed in. */
function addSpots(items: readonly Item[], printed: Set<string>, changes: Cuttable['list']['inks']): void {
  for (const item of items)
    if (item.kind !== 'art' && item.ink !== 'all' && item.ink.as === 'spot')
      printed.add(inkName(item.ink.name, changes));
}

/** Where what a written page draws is not what was asked of it. */
function otherShown(
  asked: AskedShown,
  written: Shown,
  { toUpright, boxes }: Pick<WrittenPage, 'toUpright' | 'boxes'>,
): { of: 'draws' | 'texts'; asked: number; written: number } | { of: 'shows' | 'lies' } | undefined {
  const there = areTold(asked.draws) ? written.draws.filter(saysSomething) : written.draws;
  if (there.length !== asked.draws.length)
    return { of: 'draws', asked: asked.draws.length, written: there.length };
  // Words that were read off scans come on top.
  if (written.texts < asked.texts) return { of: 'texts', asked: asked.texts, written: written.texts };
  const media = sizeBox({ width: widthOf(boxes.media), height: heightOf(boxes.media) });
  for (const [n, draw] of asked.draws.entries()) {
    const { content, matrix, clip } = entryAt(there, n);
    if (draw.content !== null && content !== draw.content) return { of: 'shows' };
    const shown = clip ? intersect(media, applyToBox(toUpright, clip)) : media;
    if (
      !isSameMove(draw.matrix, compose(matrix, toUpright), draw.media) ||
      !isNear(intersect(media, draw.clip), shown)
    )
      return { of: 'lies' };
  }
  return undefined;
}

const isNear = (one: Box, other: Box): boolean =>
  contains(one, other, TOLERANCES.written) && contains(other, one, TOLERANCES.written);

/** Whether two matrices bring a box to the same place, corner by corner. */
const isSameMove = (one: Matrix, other: Matrix, { x0, y0, x1, y1 }: Box): boolean =>
  [
    [x0, y0],
    [x1, y0],
    [x0, y1],
  ].every(([x, y]) => {
    const [p, q] = [applyToPoint(one, x!, y!), applyToPoint(other, x!, y!)];
    return Math.hypot(p.x - q.x, p.y - q.y) <= TOLERANCES.written;
  });

/** Where a written file, read again, is not what was asked. */
export function disagreements({ pages, spots }: Asked, written: Written): Disagreement[] {
  if (written.pages.length !== pages.length)
    return [{ of: 'pages', asked: pages.length, written: written.pages.length }];
  const found: Disagreement[] = [];
  pages.forEach((asked, n) => {
    const read = entryAt(written.pages, n);
    const { boxes, label = '', incomplete, shown } = read;
    const page = n + 1;
    for (const of of ['trim', 'media'] as const) {
      const size = { width: widthOf(boxes[of]), height: heightOf(boxes[of]) };
      if (
        Math.abs(size.width - asked[of].width) > TOLERANCES.written ||
        Math.abs(size.height - asked[of].height) > TOLERANCES.written
      )
        found.push({ of, page, asked: asked[of], written: size });
    }
    if (asked.label !== undefined && label !== asked.label)
      found.push({ of: 'label', page, asked: asked.label, written: label });
    const other = asked.shown && shown && otherShown(asked.shown, shown, read);
    if (other) found.push({ page, ...other });
    if (incomplete && asked.whole) found.push({ of: 'lost', page });
  });
  for (const name of spots.all) if (!written.spots.includes(name)) found.push({ of: 'ink-lost', name });
  for (const name of written.spots) if (!spots.may.includes(name)) found.push({ of: 'ink-strange', name });
  return found;
}
