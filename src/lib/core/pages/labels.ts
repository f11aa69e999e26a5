import type { Page } from './page';

/**
 * The label of each page. Where any source brings page labels (ISO 32000-1, 12.4.2), pages keep those and the others
 * carry none; otherwise a page's label is its position.
 */
export function labelsOf(pages: readonly Page[]): string[] {
  const supplied = pages.some((page) => page.label !== undefined);
  return pages.map((page, index) => (supplied ? (page.label ?? '') : String(index + 1)));
}
