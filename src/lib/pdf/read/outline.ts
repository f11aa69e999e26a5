import { PDFDict, PDFName, type PDFDocument, type PDFObject, type PDFRef } from '@cantoo/pdf-lib';
import type { Survey } from '../../core/model/survey';
import { namedTargets, targetPage } from './targets';
import { textOf } from '../objects/libraryObjects';

const MOST = 5000;

/** The bookmarks of a document in reading order (ISO 32000-1, 12.3.3); pages from 0, where the target is plain to see. */
export function bookmarksOf(
  document: PDFDocument,
  pageByRef: ReadonlyMap<PDFRef, number>,
): Survey['bookmarks'] {
  const found: Survey['bookmarks'] = [];
  const names = namedTargets(document);
  const seen = new Set<PDFDict>();
  const walk = (first: PDFObject | undefined, level: number) => {
    for (
      let item = document.context.lookup(first);
      item instanceof PDFDict && !seen.has(item) && found.length < MOST;
      item = item.lookup(PDFName.of('Next'))
    ) {
      seen.add(item);
      const target = targetPage(item, names);
      const page = target && pageByRef.get(target);
      found.push({
        title: textOf(item.lookup(PDFName.of('Title'))) ?? '',
        level,
        ...(page === undefined ? {} : { page }),
      });
      if (level < 32) walk(item.get(PDFName.of('First')), level + 1);
    }
  };
  const root = document.catalog.lookup(PDFName.of('Outlines'));
  if (root instanceof PDFDict) walk(root.get(PDFName.of('First')), 0);
  return found;
}
