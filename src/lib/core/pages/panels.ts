import { leafOf } from './leaves';
import type { Page, PageList } from './page';

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
    const [front, back] = [list.panels[i]!, list.panels[i + 1]!];
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

/** How each face of a panel is addressed, by its id: `5+1 front`. */
export const addressesOf = (list: PageList): ReadonlyMap<string, string> =>
  new Map(
    panelsOf(list).flatMap(({ on, nth, front, back }): [string, string][] => [
      [front.id, `${on + 1}+${nth} front`],
      [back.id, `${on + 1}+${nth} back`],
    ]),
  );

/** The list without panels whose page is gone. */
export function settlePanels(list: PageList): PageList {
  if (!list.panels?.length) return list;
  const here = new Set(list.pages.map(({ id }) => id));
  const panels = list.panels.filter(({ panel }) => here.has(panel!.on));
  return panels.length === list.panels.length ? list : { ...list, panels };
}
