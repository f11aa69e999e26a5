import type { Page, PageList } from '../model/page';
import { fromOutside, leafletSheet, pagesPerLeaflet, panelAt } from '../sheets/leaflet';
import type { Leaflet } from '../sheets/schemes';
import { sameSize } from '../paper/sizes';
import { sizeLike } from '../docket/steps/trim';
import { leafOf } from '../pages/leaves';
import { foldedAtFore } from './panels';
import { oddOnes, piecesOf, sizeGroups } from '../pages/sizes';
import type { Size } from '../measure/box';
import type { Check, CheckKind, FindingOf, MendOf } from './finding';

/** What this family finds. */
type Found =
  | { code: 'leaf-two-sizes'; front: Size; back: Size }
  | { code: 'mixed-sizes'; commonest: Size; sizes: number };
type Mends = 'same-leaf-size' | 'commonest-size' | 'turn-like-rest';
type Finding = FindingOf<Found, Mends>;
type Mend = MendOf<Mends>;

/**
 * Pages of another size than the rest of their piece, unnoticed until the folder jams; and leaves whose two faces differ.
 * Panels of a leaflet differ by its folds: there the faces of each panel are held against each other. Flat pieces that each
 * have sheets or cells of their own may differ.
 */
const checkSizes: Check<Found, Mends> = ({ list, docket: { scheme } }) => {
  if (scheme.kind === 'leaflet' && scheme.pages === 'panels')
    return facesOfPanels(list, scheme).flatMap(([front, back]) => leafSizes(front, back));
  // A leaf with a fold-out ends at its fold, so it is narrower than the rest.
  const folded = foldedAtFore(list);
  const mayDiffer = scheme.kind === 'flat' && (scheme.arrange === 'repeat' || scheme.arrange === 'gang');
  const alike = list.pages.filter(({ id, piece }) => !folded.has(id) && !(mayDiffer && !piece));
  const findings = piecesOf(alike).flatMap(mixedSizes);
  list.pages.forEach((page, index) => {
    const back = list.pages[index + 1];
    if (!back || leafOf(index, list.book).face !== 'front' || !list.book.facing) return;
    findings.push(...leafSizes(page, back));
  });
  return findings;
};

/** The two pages of every panel of every leaflet that have both. */
function facesOfPanels(list: PageList, scheme: Leaflet): [Page, Page][] {
  const each = pagesPerLeaflet(scheme);
  const found: [Page, Page][] = [];
  for (let first = 0; first < list.pages.length; first += each) {
    const pages = fromOutside(list.pages.slice(first, first + each), scheme);
    const sheet = leafletSheet(list, scheme, first)!;
    const at = (n: number) => panelAt(n, sheet);
    pages.forEach((front, n) => {
      const place = at(n);
      if (place.on !== 'outside') return;
      const back = pages.find((_, m) => {
        const other = at(m);
        return other.on === 'inside' && other.column === place.column && other.row === place.row;
      });
      if (back) found.push([front, back]);
    });
  }
  return found;
}

function leafSizes(front: Page, back: Page): Finding[] {
  if (sameSize(front.trim, back.trim)) return [];
  return [
    {
      code: 'leaf-two-sizes',
      front: front.trim,
      back: back.trim,
      level: 'stop',
      stage: 'pages',
      pages: [front.id, back.id],
      mend: { code: 'same-leaf-size', steps: [sizeLike([back], front.trim)] },
    },
  ];
}

/** Pages that only lie the other way are turned, others are made as large as the rest. */
function mendOf(odd: readonly Page[], like: Size): Mend {
  const { width, height } = like;
  if (!odd.every(({ trim }) => sameSize(trim, { width: height, height: width })))
    return { code: 'commonest-size', steps: [sizeLike(odd, like)] };
  const unless = width > height ? 'landscape' : 'portrait';
  return {
    code: 'turn-like-rest',
    steps: [{ kind: 'turn', pages: { ids: odd.map(({ id }) => id) }, by: 90, unless }],
  };
}

function mixedSizes(pages: readonly Page[]): Finding[] {
  const odd = oddOnes(pages);
  if (!odd) return [];
  return [
    {
      code: 'mixed-sizes',
      commonest: odd.like,
      sizes: sizeGroups(pages).length,
      level: 'stop',
      stage: 'pages',
      pages: odd.pages.map(({ id }) => id),
      mend: mendOf(odd.pages, odd.like),
    },
  ];
}

/** The family of these findings. */
export const sizes: CheckKind<'sizes', Found, Mends> = { kind: 'sizes', check: checkSizes };
