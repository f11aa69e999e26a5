import type { Book, PageList } from '../pages/page';
import { sameSize } from '../paper/sizes';
import { pagesPerLeaflet } from './leaflet';
import { PLAIN_SCHEMES, type Press, type Scheme } from './scheme';

/**
 * A kind of scheme as it begins for pages: on the paper and with the marks of the scheme before it. As many pages as a
 * leaflet has panels are its panels; flat pages that cannot be fronts and backs in turn are pieces by themselves.
 */
export function freshScheme(
  kind: Scheme['kind'],
  { pages, book }: PageList,
  before: Scheme,
): { scheme: Scheme; book: Partial<Book> } {
  const fresh: Scheme = PLAIN_SCHEMES[kind];
  const shared: Partial<Press> =
    'stock' in before && 'stock' in fresh ? { stock: before.stock, turn: before.turn } : {};
  const marks = 'marks' in before && 'marks' in fresh ? { marks: before.marks } : {};
  const scheme = { ...fresh, ...shared, ...marks } as Scheme;
  if (scheme.kind === 'leaflet') {
    const panels = { ...scheme, pages: 'panels' } as const;
    return {
      scheme: pages.length && pages.length % pagesPerLeaflet(panels) === 0 ? panels : scheme,
      book: {},
    };
  }
  const inPairs =
    pages.length % 2 === 0 && pages.every((page, n) => n % 2 || sameSize(page.trim, pages[n + 1]!.trim));
  return { scheme, book: kind === 'flat' && book.facing && !inPairs ? { facing: false } : {} };
}
