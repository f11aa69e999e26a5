import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFObjectCopier,
  PDFString,
  type PDFRef,
  type PDFContext,
  type PDFDocument,
} from '@cantoo/pdf-lib';
import { mayPrint, type Surveys } from '../../core/model/survey';
import type { PdfVersion } from '../objects/byteOutput';
import { loadPdf, readablePdf } from '../read/load';
import { pagesOf, type SourcePage } from '../read/pageTree';
import type { ReadSource } from './sheetsPdf';
import { PdfError } from '../objects/pdfError';
import { tidyPdf } from '../read/tidy';

/** A source opened for writing: its pages, and how an object of it comes into the output. */
export interface OpenSource {
  document: PDFDocument;
  pages: SourcePage[];
  /** Brings an object into the output's context; in the base it is there already. */
  bring: <T extends Parameters<PDFObjectCopier['copy']>[0]>(object: T) => T;
  isBase: boolean;
}

export interface OpenSources {
  /** The context the output is written in: that of the source with most pages in use, whose objects need no copying. */
  context: PDFContext;
  base: PDFDocument;
  byId: ReadonlyMap<string, OpenSource>;
  /** The same sources with the annotations that print as part of their pages, of those that have such. */
  printed: ReadonlyMap<string, OpenSource>;
  version: PdfVersion;
}

/**
 * Opens the sources of an output. `uses` are the source ids in order of use, repeats included; of `drawn` ones pages are drawn
 * as forms, and not only brought as pages. Throws PdfError.
 */
export async function openSources(
  uses: readonly string[],
  drawn: ReadonlySet<string>,
  read: ReadSource,
  surveys: Surveys,
  empty: () => Promise<PDFDocument>,
): Promise<OpenSources> {
  const counts = new Map<string, number>();
  for (const source of uses) counts.set(source, (counts.get(source) ?? 0) + 1);
  const order = [...counts].sort((a, b) => b[1] - a[1]).map(([source]) => source);
  const byId = new Map<string, OpenSource>();
  const printed = new Map<string, OpenSource>();
  let base: PDFDocument | undefined;
  let version: OpenSources['version'] = '1.7';
  for (const source of order) {
    const bytes = await read(source);
    const document = await loadPdf(bytes);
    const pages = pagesOf(document);
    if (pages.length !== surveys[source]?.pages.length) throw new PdfError('source-changed');
    if (document.context.header.getVersionString().startsWith('2')) version = '2.0';
    const isBase = base === undefined;
    base ??= document;
    const copier = isBase ? undefined : PDFObjectCopier.for(document.context, base.context);
    byId.set(source, { document, pages, isBase, bring: (object) => (copier ? copier.copy(object) : object) });
    if (!drawn.has(source) || !mayPrint(surveys[source])) continue;
    const flat = await loadPdf(await tidyPdf((await readablePdf(bytes)).bytes, true));
    const from = PDFObjectCopier.for(flat.context, base.context);
    printed.set(source, {
      document: flat,
      pages: pagesOf(flat),
      isBase: false,
      bring: (object) => from.copy(object),
    });
  }
  base ??= await empty();
  return { context: base.context, base, byId, printed, version };
}

/**
 * One OCProperties dictionary for the layers of all sources (ISO 32000-1, 8.11.4), so that what was hidden stays hidden, and
 * for `own` ones, which show. Undefined if there are no layers.
 */
export function mergeLayers({ context, byId }: OpenSources, own: readonly PDFRef[]): PDFDict | undefined {
  const all = [...byId.values()].flatMap((source) => {
    const layers = source.document.catalog.lookup(PDFName.of('OCProperties'));
    return layers instanceof PDFDict ? [source.bring(layers)] : [];
  });
  if (own.length) all.push(context.obj({ OCGs: [...own], D: { ON: [...own], Order: [...own] } }));
  const [first, ...rest] = all;
  if (!first) return undefined;
  for (const layers of rest) {
    append(first, layers, 'OCGs', context);
    const [into, from] = [first.lookup(PDFName.of('D')), layers.lookup(PDFName.of('D'))];
    if (into instanceof PDFDict && from instanceof PDFDict)
      for (const key of ['ON', 'OFF', 'Order', 'Locked']) append(into, from, key, context);
  }
  return first;
}

function append(into: PDFDict, from: PDFDict, key: string, context: PDFContext): void {
  const [a, b] = [into.lookup(PDFName.of(key)), from.lookup(PDFName.of(key))];
  if (!(b instanceof PDFArray)) return;
  const both = [...(a instanceof PDFArray ? a.asArray() : []), ...b.asArray()];
  into.set(PDFName.of(key), context.obj(both));
}

/** The info dictionary of an output. Times as PDF dates (7.9.4). */
export function writeInfo(context: PDFContext, title: string, at: Date): PDFRef {
  const date = `D:${at.toISOString().replace(/[-:T]|\.\d+Z$/g, '')}Z`;
  return context.register(
    context.obj({
      Title: PDFHexString.fromText(title),
      Producer: PDFHexString.fromText('Folder'),
      Creator: PDFHexString.fromText('Folder'),
      CreationDate: PDFString.of(date),
      ModDate: PDFString.of(date),
    }),
  );
}
