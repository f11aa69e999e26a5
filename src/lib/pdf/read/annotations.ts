import { PDFArray, PDFDict, PDFName, PDFNumber, type PDFContext } from '@cantoo/pdf-lib';
import type { Survey } from '../../core/model/survey';
import { nameUnder } from './fileObjects';
import type { SourcePage } from './pageTree';

/** Flags of annotations (ISO 32000-1, table 165). */
const [HIDDEN, PRINT] = [1 << 1, 1 << 2];
/** Those that have nothing to print themselves: a link is a place, a popup belongs to another annotation. */
const NOTHING_TO_PRINT: readonly string[] = ['Link', 'Popup'];

/** Which pages have annotations or form fields that print (12.5.3, flag Print), and which have others that only show on screens. */
export function annotationsOf(
  pages: readonly SourcePage[],
  context: PDFContext,
): NonNullable<Survey['annotations']> {
  const found: { [Kind in 'print' | 'screen']: number[] } = { print: [], screen: [] };
  pages.forEach(({ dict }, index) => {
    const list = context.lookup(dict.get(PDFName.of('Annots')));
    if (!(list instanceof PDFArray)) return;
    const kinds = new Set<'print' | 'screen'>();
    for (let n = 0; n < list.size(); n++) {
      if (NOTHING_TO_PRINT.includes(nameUnder(context, list.get(n), 'Subtype') ?? '')) continue;
      const annotation = list.lookup(n);
      if (!(annotation instanceof PDFDict)) continue;
      const flags = annotation.lookup(PDFName.of('F'));
      const value = flags instanceof PDFNumber ? flags.asNumber() : 0;
      if (!(value & HIDDEN)) kinds.add(value & PRINT ? 'print' : 'screen');
    }
    for (const kind of kinds) found[kind].push(index);
  });
  return found;
}
