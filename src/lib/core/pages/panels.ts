import { mm } from '../measure/unit';
import { leafOf } from './leaves';
import type { Page, PageList } from '../model/page';
import { entryAt, entryOf } from '../entries';

/** A fold-out panel on the fore edge of a leaf. */
export interface Panel {
  id: string;
  /** Number of its leaf, from 1, and its own number on that, from the fore edge outwards. */
  leaf: number;
  nth: number;
  /** Index in the page list of the page that it is addressed by: the front of its leaf, where that is there. */
  on: number;
  front: Page;
  back: Page;
  /** Over which face of its leaf it folds in. */
  folds: 'front' | 'back';
}

/** The panels of a list, leaf by leaf, from the fore edge outwards. */
export function panelsOf(list: PageList): Panel[] {
  if (!list.panels?.length) return [];
  const { pages, book } = list;
  const at = new Map(pages.map(({ id }, index) => [id, index]));
  const found: Panel[] = [];
  for (let i = 0; i + 1 < list.panels.length; i += 2) {
    const [front, back] = [entryAt(list.panels, i), entryAt(list.panels, i + 1)];
    const { id, on: anchor, folds } = front.panel!;
    const index = at.get(anchor);
    if (index === undefined) continue;
    const { leaf, face } = leafOf(index, book);
    const on = face === 'back' && index > 0 ? index - 1 : index;
    const nth = found.filter((panel) => panel.leaf === leaf).length + 1;
    found.push({ id, leaf, nth, on, front, back, folds });
  }
  return found.sort((a, b) => a.leaf - b.leaf || a.nth - b.nth);
}

/** The indexes of the pages of a panel's leaf, front first. */
export const pagesOfLeaf = ({ on }: Pick<Panel, 'on'>, { pages, book }: PageList): number[] =>
  leafOf(on, book).face === 'front' && on + 1 < pages.length ? [on, on + 1] : [on];

/** Width of the leaf that a panel hangs on, or will: that of the wider of its two faces. `on` as in Panel. */
export const leafWidth = (leaf: Pick<Panel, 'on'>, list: PageList): number =>
  Math.max(...pagesOfLeaf(leaf, list).map((index) => entryAt(list.pages, index).trim.width));

/** A panel's width, what it folds over, and how wide it would be worked out: wider or narrower where its faces are. */
export interface WorkedPanel {
  over: number;
  worked: number;
  width: number;
}

/** How the new panels of a leaf came to be as wide as they are, from the fore edge outwards; `over` is what the first folds over. */
export function workedPanels(panels: readonly Panel[], over: number, allowance: number): WorkedPanel[] {
  let next = over;
  return panels.map((panel) => {
    const [before, width] = [next, panelWidth(panel)];
    next = width;
    return { over: before, worked: foldInWidth(before, allowance), width };
  });
}

/** How wide a panel is: its wider face. */
export const panelWidth = ({ front, back }: Panel): number => Math.max(front.trim.width, back.trim.width);

/** What a new panel on the leaf of the page at an index would fold over: its outermost panel, else the leaf. */
export function foldedOver(
  index: number,
  list: PageList,
): { what: 'panel' | 'leaf'; width: number; on: number; nth: number } {
  const { leaf, face } = leafOf(index, list.book);
  const on = face === 'back' && index > 0 ? index - 1 : index;
  const outermost = panelsOf(list).findLast((panel) => panel.leaf === leaf);
  return outermost
    ? { what: 'panel', width: panelWidth(outermost), on, nth: outermost.nth + 1 }
    : { what: 'leaf', width: leafWidth({ on }, list), on, nth: 1 };
}

/** How a panel is addressed: `5+1`. */
export const addressOf = ({ on, nth }: Pick<Panel, 'on' | 'nth'>): string => `${on + 1}+${nth}`;

/** An address without its face. */
export const withoutFace = (address: string): string => address.replace(/ (front|back)$/, '');

/** How each face of a panel is addressed, by its id: `5+1 front`. */
export const addressesOf = (list: PageList): ReadonlyMap<string, string> =>
  new Map(
    panelsOf(list).flatMap((panel): [string, string][] => [
      [panel.front.id, `${addressOf(panel)} front`],
      [panel.back.id, `${addressOf(panel)} back`],
    ]),
  );

/** Takes off the panels of which a face is selected: the list without them, and their faces. */
export function takeOff(selected: ReadonlySet<number>, list: PageList): { rest: PageList; off: Page[] } {
  const faces = list.panels ?? [];
  const gone = new Set(
    faces.flatMap(({ panel }, n) => (selected.has(list.pages.length + n) ? [panel!.id] : [])),
  );
  if (!gone.size) return { rest: list, off: [] };
  const isOff = ({ panel }: Page) => gone.has(panel!.id);
  return { rest: { ...list, panels: faces.filter((face) => !isOff(face)) }, off: faces.filter(isOff) };
}

/** The list without panels whose page is gone. */
export function settlePanels(list: PageList): PageList {
  if (!list.panels?.length) return list;
  const here = new Set(list.pages.map(({ id }) => id));
  const panels = list.panels.filter(({ panel }) => here.has(panel!.on));
  return panels.length === list.panels.length ? list : { ...list, panels };
}

/** How much narrower a panel is made than what it folds over. By practice (1.5 to 3 mm). */
export const FOLD_IN = mm(2);

/** A panel that folds in is at least this much narrower than what it folds over. By practice (1.5 to 3 mm). */
export const LEAST_NARROWER = mm(1.5);

/** Width of a panel that folds in over something: less by the allowance. */
export const foldInWidth = (over: number, allowance: number): number => over - allowance;

/** The panels of a list by what `key` says of each, from the fore edge outwards. */
export function panelsBy(list: PageList, key: (panel: Panel) => number): ReadonlyMap<number, Panel[]> {
  const found = new Map<number, Panel[]>();
  for (const panel of panelsOf(list)) found.set(key(panel), [...(found.get(key(panel)) ?? []), panel]);
  return found;
}

/** All that is printed as a reader meets it, fold-outs open: fronts outwards after their page, then the backs inwards. Indexes of `facesOf`. */
export function readingOrder(list: PageList): number[] {
  const core = list.pages.map((_, index) => index);
  if (!list.panels?.length) return core;
  const at = new Map(list.panels.map(({ id }, n) => [id, list.pages.length + n]));
  const byLeaf = panelsBy(list, ({ on }) => on);
  return core.flatMap((index) => {
    const panels = byLeaf.get(index) ?? [];
    const fronts = panels.map(({ front }) => entryOf(at, front.id));
    const backs = panels.map(({ back }) => entryOf(at, back.id)).reverse();
    // On the back of a leaf alone, its panels are met before it.
    return leafOf(index, list.book).face === 'back'
      ? [...fronts, ...backs, index]
      : [index, ...fronts, ...backs];
  });
}
