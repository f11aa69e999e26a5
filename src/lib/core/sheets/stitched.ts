import type { SignaturePages } from '../fold/patterns';
import type { Size } from '../measure/box';
import { labelsOf } from '../numbers/labels';
import { backSide, frontSide } from '../pages/page';
import type { Page, PageList } from '../model/page';
import { panelsBy, panelsOf } from '../pages/panels';
import { commonestSize } from '../pages/sizes';
import type { Forme } from './forme';
import { lengthAlong, panelParts, plannedPanels, type StripPart } from './leafStrip';
import { planForms } from './press';
import { NO_JOB, type PlannedPage, type SheetPlan } from './plan';
import type { Signatures } from './settings/signatures';
import type { Stitched } from './settings/stitched';
import { creeping, leafPairOf, nestedPage, sheetFolder, type LeafOf } from './signature';
import { entryAt, entryOf, firstOf } from '../entries';

/**
 * Plans a stitched booklet: folded sheets, nested. The layout comes from folding a blank sheet, numbering the closed stack
 * and unfolding it. A fold-out makes its sheet a longer strip, which is folded once and lies among the others at its place.
 * Undefined for an empty list.
 */
export function planStitched(list: PageList, scheme: Stitched, job = NO_JOB): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  if (!cell) return undefined;
  const pages = padded(list, pagesThatFill(scheme, list), scheme.pad);
  const leaves = leavesOf(pages, list, cell);
  const creep = creeping(scheme, job.safe);
  const folders = new Map<SignaturePages, ReturnType<typeof sheetFolder>>();
  const folderFor = (size: SignaturePages) => {
    const { spine } = list.book;
    const known =
      folders.get(size) ??
      sheetFolder({ pages: size, spine, cell, gap: scheme.gap, cutOff: scheme.cutOff ?? 0 });
    folders.set(size, known);
    return known;
  };
  const sheets = nestedSheets(leaves, scheme.signature ?? 4);
  const isMixed = sheets.some(({ size }) => size !== firstOf(sheets).size);
  const formes = sheets.map(({ around, size }): Forme => {
    const leaf: LeafOf = (page) => {
      const position = nestedPage(page, around, size, pages.length);
      return {
        segments: entryAt(leaves, Math.ceil(position / 2) - 1),
        ...creep.of(leafPairOf(position, pages.length)),
      };
    };
    return folderFor(size)(leaf, isMixed ? `${size} pages` : undefined);
  });
  return planForms(
    {
      formes,
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

/** The sheets from the outermost in: how many leaf pairs lie around each, and how many pages it carries. A pair with a fold-out is a sheet by itself. */
function nestedSheets(
  leaves: readonly (readonly StripPart[])[],
  most: SignaturePages,
): { around: number; size: SignaturePages }[] {
  const sheets: { around: number; size: SignaturePages }[] = [];
  const pairs = leaves.length / 2;
  const isStrip = (pair: number) =>
    entryAt(leaves, pair).length > 1 || entryAt(leaves, leaves.length - 1 - pair).length > 1;
  for (let around = 0; around < pairs;) {
    let run = around;
    while (run < pairs && !isStrip(run)) run++;
    for (const size of run > around ? signatureSizes(4 * (run - around), most) : ([4] as const)) {
      sheets.push({ around, size });
      around += size / 4;
    }
  }
  return sheets;
}

/** How many pages each folded sheet has: as many whole ones as there are, then each half as large where one fits. */
export function signatureSizes(pages: number, signature: SignaturePages): SignaturePages[] {
  const sizes: SignaturePages[] = [];
  let left = pages;
  for (const size of [32, 16, 8, 4] as const)
    for (; size <= signature && left >= size; left -= size) sizes.push(size);
  return sizes;
}

/** The pages of a book fill its sheets where they are a multiple of this. Sheets of a booklet with fold-outs may have fewer pages than others. */
export function pagesThatFill(scheme: Stitched | Signatures, list: PageList): number {
  if (scheme.kind === 'signatures') return scheme.last === 'smaller' ? 4 : scheme.signature;
  return list.panels?.length ? 4 : (scheme.signature ?? 4);
}

/** How many leaves of a book carry fold-outs, and so go on strips of their own where it is bound in signatures. */
export const leavesApart = (list: PageList): number =>
  new Set(panelsOf(list).map(({ on }) => Math.floor(on / 2))).size;

/** How many blanks fill the last sheet of a book. */
export const blanksOf = (list: PageList, scheme: Stitched | Signatures): number =>
  blanksWanted(
    list.pages.length - 2 * (scheme.kind === 'signatures' ? leavesApart(list) : 0),
    pagesThatFill(scheme, list),
  );

/** How many blanks fill the last sheet; of a lone page whose leaf goes on a sheet of its own (−1), its back. */
export const blanksWanted = (pageCount: number, perSheet = 4): number =>
  (perSheet - (pageCount % perSheet)) % perSheet;

/**
 * The pages with the blanks that fill the last sheet, where so many leaves go on sheets of their own. Page 1 of a book is the
 * front of a leaf, whatever the list says.
 */
export function padded(
  list: PageList,
  perSheet: number,
  pad: Stitched['pad'],
  leavesApart = 0,
): PlannedPage[] {
  const labels = labelsOf(list);
  const pages: { page?: Page; label: string }[] = list.pages.map((page, index) => ({
    page,
    label: entryAt(labels, index),
  }));
  const wanted = blanksWanted(pages.length - 2 * leavesApart, perSheet);
  const blanks = Array.from({ length: wanted }, () => ({ label: '' }));
  // A single page is the front: there is no last one to be kept at the back.
  pages.splice(pad === 'end' || pages.length < 2 ? pages.length : pages.length - 1, 0, ...blanks);
  const [front, back] = [frontSide(list.book), backSide(list.book)];
  return pages.map((page, index): PlannedPage => ({
    position: index + 1,
    name: String(index + 1),
    side: index % 2 === 0 ? front : back,
    ...page,
  }));
}

/** Every leaf as its parts from the spine outwards. */
export function leavesOf(pages: readonly PlannedPage[], list: PageList, cell: Size): Required<StripPart>[][] {
  const { spine } = list.book;
  const along = (page: Page | undefined) => (page ? lengthAlong(page.trim, spine) : 0);
  const at = new Map(pages.flatMap(({ page, position }) => (page ? [[page.id, position]] : [])));
  const planned = plannedPanels(list, pages.length);
  const hanging = panelsBy(list, ({ front }) => Math.ceil(entryOf(at, front.panel!.on) / 2) - 1);
  return Array.from({ length: pages.length / 2 }, (_, leaf): Required<StripPart>[] => {
    const [front, back] = [entryAt(pages, 2 * leaf), entryAt(pages, 2 * leaf + 1)];
    const panels = panelParts(hanging.get(leaf) ?? [], planned, spine);
    // A leaf with a panel ends at its fold; one without is trimmed with all others.
    const own = panels.length ? Math.max(along(front.page), along(back.page)) : 0;
    return [{ front, back, length: own || lengthAlong(cell, spine) }, ...panels];
  });
}
