import { deflateSync } from 'node:zlib';
import { PDFArray, PDFName, PDFRef } from '@cantoo/pdf-lib';
import { pageContent } from './decodeStream';
import { loadPdf } from './load';
import { pagesOf } from './pageTree';
import { writePdf } from './writePdf';

/**
 * The same document written plainly: decrypted, its cross-reference table whole, each page with one content stream.
 * For files that cannot be read where they lie. Throws PdfError.
 */
export async function launderPdf(bytes: Uint8Array): Promise<Uint8Array> {
  const document = await loadPdf(bytes);
  const { context } = document;
  for (const { dict } of pagesOf(document)) {
    const contents = dict.lookup(PDFName.of('Contents'));
    if (!(contents instanceof PDFArray) || contents.size() === 1) continue;
    dict.set(
      PDFName.of('Contents'),
      context.register(context.stream(deflateSync(pageContent(dict)), { Filter: 'FlateDecode' })),
    );
  }
  const chunks: Uint8Array[] = [];
  const info =
    context.trailerInfo.Info instanceof PDFRef ? context.trailerInfo.Info : context.register(context.obj({}));
  const version = document.context.header.getVersionString().startsWith('2') ? '2.0' : '1.7';
  await writePdf(
    { context, root: context.trailerInfo.Root as PDFRef, info, id: '0'.repeat(32), version },
    (chunk) => void chunks.push(chunk),
  );
  return Buffer.concat(chunks);
}
