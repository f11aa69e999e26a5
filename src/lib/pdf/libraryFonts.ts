import {
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  PDFString,
  type PDFContext,
  type PDFDict,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { embedFace, PdfText, type Dictionary, type Embedded, type Plain } from './fonts';

/** Embeds the face of texts in a document of the PDF library. */
export const embedInDocument = (context: PDFContext, texts: readonly string[]): Embedded<PDFRef> =>
  embedFace<PDFRef>('Source Sans 3', texts, (dictionary, stream) => {
    const dict = toLibrary(dictionary, context) as PDFDict;
    return context.register(stream ? PDFRawStream.of(dict, stream) : dict);
  });

function toLibrary(value: Plain<PDFRef>, context: PDFContext): PDFObject {
  if (value instanceof PDFRef) return value;
  if (value instanceof PdfText) return PDFString.of(value.value);
  if (typeof value === 'string') return PDFName.of(value);
  if (typeof value === 'number') return PDFNumber.of(value);
  if (Array.isArray(value)) return context.obj(value.map((each: Plain<PDFRef>) => toLibrary(each, context)));
  const entries = Object.entries(value as Dictionary<PDFRef>).map(([key, each]) => [
    key,
    toLibrary(each, context),
  ]);
  return context.obj(Object.fromEntries(entries) as Record<string, PDFObject>);
}
