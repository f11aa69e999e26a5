import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRef,
  PDFString,
  type PDFDocument,
  type PDFObject,
} from '@cantoo/pdf-lib';

const DEEPEST = 32;
const key = PDFName.of;

/** What a named destination leads to (ISO 32000-1, 12.3.2.3): in the catalog's Dests, or in the name tree of its Names. */
export type NamedTargets = ReadonlyMap<string, PDFObject>;

export function namedTargets({ catalog }: Pick<PDFDocument, 'catalog'>): NamedTargets {
  const found = new Map<string, PDFObject>();
  const old = catalog.lookup(key('Dests'));
  if (old instanceof PDFDict) for (const [name, value] of old.entries()) found.set(name.decodeText(), value);
  const seen = new Set<PDFObject>();
  const walk = (node: PDFObject | undefined, depth: number): void => {
    if (!(node instanceof PDFDict) || depth > DEEPEST || seen.has(node)) return;
    seen.add(node);
    const names = node.lookup(key('Names'));
    if (names instanceof PDFArray)
      for (let n = 0; n + 1 < names.size(); n += 2) {
        const name = textOfName(names.lookup(n));
        if (name !== undefined) found.set(name, names.get(n + 1));
      }
    const kids = node.lookup(key('Kids'));
    if (kids instanceof PDFArray) for (let n = 0; n < kids.size(); n++) walk(kids.lookup(n), depth + 1);
  };
  const tree = catalog.lookup(key('Names'));
  if (tree instanceof PDFDict) walk(tree.lookup(key('Dests')), 0);
  return found;
}

const textOfName = (value: PDFObject | undefined): string | undefined =>
  value instanceof PDFName || value instanceof PDFString || value instanceof PDFHexString
    ? value.decodeText()
    : undefined;

/** The page that a bookmark or a link leads to within its document; undefined if it leads elsewhere or nowhere. */
export function targetPage(item: PDFDict, names: NamedTargets): PDFRef | undefined {
  const action = item.lookup(key('A'));
  const goes = action instanceof PDFDict && action.lookup(key('S')) === key('GoTo');
  let target = item.lookup(key('Dest')) ?? (goes ? action.lookup(key('D')) : undefined);
  const name = textOfName(target);
  if (name !== undefined) target = item.context.lookup(names.get(name));
  // A name may stand for a dictionary that holds the destination.
  if (target instanceof PDFDict) target = target.lookup(key('D'));
  const page = target instanceof PDFArray ? target.get(0) : undefined;
  return page instanceof PDFRef ? page : undefined;
}

/** Takes out bookmarks and links that lead to pages which are not `here`; a bookmark over others that stay is kept as their heading. */
export function dropDeadTargets(
  document: Pick<PDFDocument, 'catalog'>,
  pages: readonly PDFDict[],
  here: ReadonlySet<PDFRef>,
): void {
  const names = namedTargets(document);
  const isDead = (item: PDFDict): boolean => {
    const page = targetPage(item, names);
    return page !== undefined && !here.has(page);
  };
  for (const page of pages) {
    const links = page.lookup(key('Annots'));
    if (!(links instanceof PDFArray)) continue;
    for (let n = links.size() - 1; n >= 0; n--) {
      const link = links.lookup(n);
      if (link instanceof PDFDict && link.lookup(key('Subtype')) === key('Link') && isDead(link))
        links.remove(n);
    }
  }
  const root = document.catalog.lookup(key('Outlines'));
  if (root instanceof PDFDict && !pruneUnder(root, isDead, new Set(), 0))
    document.catalog.delete(key('Outlines'));
}

/** Prunes the bookmarks under a node and links those that stay anew (12.3.3); how many of them show while all is open. */
function pruneUnder(
  node: PDFDict,
  isDead: (item: PDFDict) => boolean,
  seen: Set<PDFObject>,
  depth: number,
): number {
  const kept: PDFRef[] = [];
  let showing = 0;
  for (let at = node.get(key('First')); at instanceof PDFRef && !seen.has(at) && depth < DEEPEST;) {
    seen.add(at);
    const item = node.context.lookup(at);
    if (!(item instanceof PDFDict)) break;
    const below = pruneUnder(item, isDead, seen, depth + 1);
    const dead = isDead(item);
    if (!dead || below) {
      if (dead) for (const entry of ['Dest', 'A']) item.delete(key(entry));
      kept.push(at);
      showing += 1 + Math.max(0, below);
    }
    const next = item.get(key('Next'));
    if (!(next instanceof PDFRef)) break;
    at = next;
  }
  const put = (item: PDFDict, entry: string, ref: PDFRef | undefined) =>
    ref ? item.set(key(entry), ref) : item.delete(key(entry));
  put(node, 'First', kept[0]);
  put(node, 'Last', kept.at(-1));
  kept.forEach((ref, n) => {
    const item = node.context.lookup(ref, PDFDict);
    put(item, 'Prev', kept[n - 1]);
    put(item, 'Next', kept[n + 1]);
  });
  const count = node.lookup(key('Count'));
  const closed = depth > 0 && count instanceof PDFNumber && count.asNumber() < 0;
  if (showing) node.set(key('Count'), PDFNumber.of(closed ? -showing : showing));
  else node.delete(key('Count'));
  return closed ? Math.min(showing, kept.length) : showing;
}
