import { widthOf, heightOf, type Size } from '../measure/box';
import { faceLabels } from '../numbers/labels';
import { inkName, inksOf } from '../numbers/jobInks';
import { bleedBox, facesOf, sideAt } from '../pages/page';
import type { Survey } from '../model/survey';
import { sidesOf, type SheetPlan } from '../sheets/plan';
import { sheetSurface } from '../sheets/sheetSurface';
import type { Cuttable, Part } from './parts';
import { entryAt, entryOf } from '../entries';
import { TOLERANCES } from '../measure/tolerances';

/** What was asked of one page of a file: sizes in points, as the page is seen. */
interface AskedPage {
  trim: Size;
  media: Size;
  label?: string;
  /** How many pages, and things laid on them, are drawn on it. */
  draws?: number;
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
  | { of: 'draws'; page: number; asked: number; written: number }
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

/** What a file of pages in reading order must be. */
export function askedOfPages(work: Cuttable): AskedOf {
  const { list } = work;
  const { may, spotsOn } = spotsIn(work);
  const faces = facesOf(list);
  const labels = faceLabels(list);
  return ({ pages }) => ({
    pages: pages.map((index) => {
      const page = entryAt(faces, index);
      const bleed = bleedBox(page, sideAt(index, list));
      return {
        trim: page.trim,
        media: { width: widthOf(bleed), height: heightOf(bleed) },
        label: entryOf(labels, page.id),
      };
    }),
    spots: { all: spotsOn(pages.map((index) => entryAt(faces, index).id)), may },
  });
}

/** What a file of the sides of sheets must be. */
export function askedOfSides(work: Cuttable, shown: SheetPlan): AskedOf {
  const { list } = work;
  const { may, spotsOn } = spotsIn(work);
  const sides = sidesOf(shown);
  return ({ pages }) => {
    const mine = pages.map((n) => entryAt(sides, n));
    const printed = new Set(['All']);
    return {
      pages: mine.map(({ drawn, size, sheet, side }) => {
        const { trim, media, items } = sheetSurface(drawn, size, shown.weight);
        for (const item of items)
          if (item.kind !== 'art' && item.ink !== 'all' && item.ink.as === 'spot')
            printed.add(inkName(item.ink.name, list.inks));
        return {
          trim: { width: widthOf(trim), height: heightOf(trim) },
          media: { width: widthOf(media), height: heightOf(media) },
          label: `${sheet} ${side}`,
          draws: items.filter(({ kind }) => kind === 'art').length,
        };
      }),
      spots: {
        all: spotsOn(mine.flatMap(({ drawn }) => drawn.cells.flatMap(({ page }) => (page ? [page.id] : [])))),
        may: [...may, ...printed],
      },
    };
  };
}

/** Where a written file, surveyed afresh, is not what was asked. */
export function disagreements({ pages, spots }: Asked, written: Survey): Disagreement[] {
  if (written.pages.length !== pages.length)
    return [{ of: 'pages', asked: pages.length, written: written.pages.length }];
  const found: Disagreement[] = [];
  pages.forEach((asked, n) => {
    const { boxes, label = '', draws } = entryAt(written.pages, n);
    if (asked.draws !== undefined && draws !== undefined && draws !== asked.draws)
      found.push({ of: 'draws', page: n + 1, asked: asked.draws, written: draws });
    for (const of of ['trim', 'media'] as const) {
      const size = { width: widthOf(boxes[of]), height: heightOf(boxes[of]) };
      if (
        Math.abs(size.width - asked[of].width) > TOLERANCES.written ||
        Math.abs(size.height - asked[of].height) > TOLERANCES.written
      )
        found.push({ of, page: n + 1, asked: asked[of], written: size });
    }
    if (asked.label !== undefined && label !== asked.label)
      found.push({ of: 'label', page: n + 1, asked: asked.label, written: label });
  });
  const there = written.inks.flatMap(({ kind, name }) => (kind === 'spot' ? [name] : []));
  for (const name of spots.all) if (!there.includes(name)) found.push({ of: 'ink-lost', name });
  for (const name of there) if (!spots.may.includes(name)) found.push({ of: 'ink-strange', name });
  return found;
}
