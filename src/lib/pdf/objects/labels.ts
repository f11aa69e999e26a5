import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  type PDFContext,
  type PDFDocument,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { labelRuns, type LabelRun } from '../../core/pages/pageLabels';
import { LABEL_STYLES, type LabelStyle } from '../../core/model/series';
import { textOf } from './libraryObjects';

const isStyle = (name: string): name is LabelStyle => LABEL_STYLES.some((style) => style === name);

/** The label runs of a document, from its number tree (ISO 32000-1, 12.4.2 and 7.9.7); none if it has none. */
export function readLabelRuns(document: PDFDocument): LabelRun[] {
  const runs: LabelRun[] = [];
  const seen = new Set<PDFObject>();
  const walk = (node: PDFObject | undefined) => {
    if (!(node instanceof PDFDict) || seen.has(node)) return;
    seen.add(node);
    const [kids, nums] = [node.lookup(PDFName.of('Kids')), node.lookup(PDFName.of('Nums'))];
    if (kids instanceof PDFArray) for (let i = 0; i < kids.size(); i++) walk(kids.lookup(i));
    if (!(nums instanceof PDFArray)) return;
    for (let i = 0; i + 1 < nums.size(); i += 2) {
      const [from, dict] = [nums.lookup(i), nums.lookup(i + 1)];
      if (from instanceof PDFNumber && dict instanceof PDFDict) runs.push(readRun(from.asNumber(), dict));
    }
  };
  walk(document.catalog.lookup(PDFName.of('PageLabels')));
  return runs.sort((a, b) => a.from - b.from);
}

function readRun(from: number, dict: PDFDict): LabelRun {
  const style = dict.lookup(PDFName.of('S'));
  const start = dict.lookup(PDFName.of('St'));
  const name = style instanceof PDFName ? style.decodeText() : '';
  return {
    from,
    prefix: textOf(dict.lookup(PDFName.of('P'))) ?? '',
    start: start instanceof PDFNumber ? Math.max(1, start.asNumber()) : 1,
    ...(isStyle(name) ? { style: name } : {}),
  };
}

/** The PageLabels entry that gives each page its label. */
export function writeLabels(labels: readonly string[], context: PDFContext): PDFDict {
  const nums = labelRuns(labels).flatMap(({ from, style, prefix, start }) => [
    PDFNumber.of(from),
    context.obj({
      ...(style ? { S: PDFName.of(style) } : {}),
      ...(prefix ? { P: PDFHexString.fromText(prefix) } : {}),
      ...(style && start !== 1 ? { St: start } : {}),
    }),
  ]);
  return context.obj({ Nums: nums });
}
