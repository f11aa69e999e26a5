import { PDFArray, PDFDict, PDFName, PDFRef, type PDFDocument, type PDFObject } from '@cantoo/pdf-lib';
import { PdfError } from '../objects/pdfError';

export const MOST_PAGES = 50_000;
const DEEPEST = 64;
const INHERITED = ['Resources', 'MediaBox', 'CropBox', 'Rotate'] as const;

/** A page of a document with what it inherits (ISO 32000-1, 7.7.3.4), as far as it says nothing else itself. */
export interface SourcePage {
  ref: PDFRef;
  dict: PDFDict;
  inherited: Partial<Record<(typeof INHERITED)[number], PDFObject>>;
}

/** What the names in a page's content mean. */
export function resourcesOf({ dict, inherited }: SourcePage): PDFDict | undefined {
  const found = dict.context.lookup(dict.get(RESOURCES) ?? inherited.Resources);
  return found instanceof PDFDict ? found : undefined;
}
const RESOURCES = PDFName.of('Resources');

/** Whether content that a page names is not there. */
export function lacksContent(page: PDFDict): boolean {
  const contents = page.lookup(CONTENTS);
  if (!contents) return page.has(CONTENTS);
  return contents instanceof PDFArray && contents.asArray().some((_, n) => !contents.lookup(n));
}
const CONTENTS = PDFName.of('Contents');

/** All pages in order. Throws PdfError if the tree is broken, bent into a loop or too large. */
export function pagesOf(document: PDFDocument): SourcePage[] {
  const { context } = document;
  const root = document.catalog.get(PDFName.of('Pages'));
  const pages: SourcePage[] = [];
  const seen = new Set<PDFRef>();
  const walk = (node: PDFObject | undefined, above: SourcePage['inherited'], depth: number) => {
    const dict = context.lookup(node);
    if (!(dict instanceof PDFDict) || depth > DEEPEST)
      throw new PdfError('page-unreadable', { page: pages.length + 1 });
    const again = node instanceof PDFRef && seen.has(node);
    if (node instanceof PDFRef) seen.add(node);
    const kids = dict.lookup(PDFName.of('Kids'));
    if (kids instanceof PDFArray) {
      if (again) throw new PdfError('page-unreadable', { page: pages.length + 1 });
      const inherited = { ...above };
      for (const key of INHERITED) {
        const value = dict.get(PDFName.of(key));
        if (value) inherited[key] = value;
      }
      for (let i = 0; i < kids.size(); i++) walk(kids.get(i), inherited, depth + 1);
      return;
    }
    if (pages.length >= MOST_PAGES) throw new PdfError('too-many-pages', { most: MOST_PAGES });
    // A page that stands twice in the tree is two pages.
    const own = again ? dict.clone(context) : dict;
    pages.push({
      ref: node instanceof PDFRef && !again ? node : context.register(own),
      dict: own,
      inherited: above,
    });
  };
  if (!root) throw new PdfError('no-pages');
  walk(root, {}, 0);
  if (!pages.length) throw new PdfError('no-pages');
  return pages;
}
