import type { Size } from '../measure/box';
import { labelsOf } from '../pages/labels';
import { backSide, frontSide, type Page, type PageList, type Side } from '../pages/page';
import { addressesOf, panelsOf } from '../pages/panels';
import { commonestSize } from '../pages/sizes';
import type { Form } from './form';
import { planForms } from './press';
import { NO_JOB, type PlannedPage, type SheetPlan } from './plan';
import type { Signatures, Stitched } from './scheme';
import {
  creeping,
  leafPairOf,
  lengthAlong,
  nestedPage,
  sheetFolder,
  type LeafOf,
  type Segment,
} from './signature';

/**
 * Plans a stitched booklet: folded sheets, nested. The layout comes from folding a blank sheet, numbering the closed stack
 * and unfolding it. Fold-out panels make their sheet a longer strip, which is folded once. Undefined for an empty list.
 */
export function planStitched(list: PageList, scheme: Stitched, job = NO_JOB): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const perSheet = pagesPerSheet(list, scheme);
  const pages = padded(list, perSheet, scheme.pad);
  const leaves = leavesOf(pages, list, cell);
  const sheets = pages.length / perSheet;
  const creep = creeping(scheme, job.safe);
  const fold = sheetFolder({
    pages: perSheet,
    spine: list.book.spine,
    cell,
    gap: scheme.gap,
    cutOff: scheme.cutOff ?? 0,
  });
  const forms = Array.from({ length: sheets }, (_, sheet): Form => {
    const leaf: LeafOf = (page) => {
      const position = nestedPage(page, sheet, sheets, perSheet);
      const pair = leafPairOf(position, pages.length);
      return {
        segments: leaves[Math.ceil(position / 2) - 1]!,
        ...creep.of(pair),
      };
    };
    return fold(leaf);
  });
  return planForms(
    {
      forms,
      pages: leaves.flat().flatMap(({ front, back }) => [front, back]),
      cell,
      blanksAdded: pages.length - list.pages.length,
      job,
      together: true,
      ...creep.plan(pages.length / 4),
    },
    scheme,
  );
}

/** A sheet with fold-outs is a strip, folded once. */
export const pagesPerSheet = ({ panels }: PageList, { signature = 4 }: Pick<Stitched, 'signature'>) =>
  panels?.length ? 4 : signature;

/** The pages of a book fill its sheets where they are a multiple of this. */
export const pagesThatFill = (scheme: Stitched | Signatures, list: PageList): number =>
  scheme.kind === 'stitched' ? pagesPerSheet(list, scheme) : scheme.last === 'smaller' ? 4 : scheme.signature;

/** How many blanks fill the last sheet. */
export const blanksWanted = (pageCount: number, perSheet = 4): number =>
  (perSheet - (pageCount % perSheet)) % perSheet;

/** The pages with the blanks that fill the last sheet. Page 1 of a book is the front of a leaf, whatever the list says. */
export function padded(list: PageList, perSheet: number, pad: Stitched['pad']): PlannedPage[] {
  const labels = labelsOf(list);
  const pages: { page?: Page; label: string }[] = list.pages.map((page, index) => ({
    page,
    label: labels[index]!,
  }));
  const blanks = Array.from({ length: blanksWanted(pages.length, perSheet) }, () => ({ label: '' }));
  pages.splice(pad === 'end' ? pages.length : pages.length - 1, 0, ...blanks);
  return pages.map((page, index): PlannedPage => ({
    ...page,
    position: index + 1,
    name: String(index + 1),
    side: index % 2 === 0 ? frontSide(list.book) : backSide(list.book),
  }));
}

/** Every leaf as its segments from the spine outwards. */
export function leavesOf(pages: readonly PlannedPage[], list: PageList, cell: Size): Segment[][] {
  const along = (page: Page | undefined) => (page ? lengthAlong(page.trim, list.book.spine) : 0);
  const addresses = addressesOf(list);
  const at = new Map(pages.flatMap(({ page, position }) => (page ? [[page.id, position]] : [])));
  const panels = panelsOf(list).map((panel) => ({
    ...panel,
    at: Math.ceil(at.get(panel.front.panel!.on)! / 2) - 1,
  }));
  let position = pages.length;
  const planned = (page: Page, side: Side): PlannedPage => ({
    page,
    position: ++position,
    name: addresses.get(page.id)!,
    label: page.label ?? '',
    side,
  });
  return Array.from({ length: pages.length / 2 }, (_, leaf): Segment[] => {
    const [front, back] = [pages[2 * leaf]!, pages[2 * leaf + 1]!];
    const hanging = panels.filter((panel) => panel.at === leaf);
    // A leaf with a panel ends at its fold; one without is trimmed with all others.
    const own = hanging.length ? Math.max(along(front.page), along(back.page)) : 0;
    return [
      { front, back, length: own || lengthAlong(cell, list.book.spine) },
      ...hanging.map((panel): Segment => ({
        front: planned(panel.front, frontSide(list.book)),
        back: planned(panel.back, backSide(list.book)),
        length: Math.max(along(panel.front), along(panel.back)),
      })),
    ];
  });
}
