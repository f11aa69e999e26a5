import {
  PDFBool,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  PDFString,
  type PDFContext,
  PDFDict,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { nameSyntax, PdfText, type AddObject, type Dictionary, type Plain, isList } from './objects';

/** Adds objects to a document of the PDF library. */
export const addTo =
  (context: PDFContext): AddObject<PDFRef> =>
  (dictionary, stream) => {
    const dict = dictIn(dictionary, context);
    return context.register(stream ? PDFRawStream.of(dict, stream) : dict);
  };

/** A value as the PDF library has it. */
export function toLibrary(value: Plain<PDFRef>, context: PDFContext): PDFObject {
  if (value instanceof PDFRef) return value;
  if (value instanceof PdfText)
    return value.syntax.startsWith('(') ? PDFString.of(value.value) : PDFHexString.of(value.hex);
  if (typeof value === 'string') return PDFName.of(nameSyntax(value));
  if (typeof value === 'number') return PDFNumber.of(value);
  if (typeof value === 'boolean') return value ? PDFBool.True : PDFBool.False;
  if (isList(value)) return context.obj(value.map((each) => toLibrary(each, context)));
  return dictIn(value, context);
}

function dictIn(dictionary: Dictionary<PDFRef>, context: PDFContext): PDFDict {
  const dict = PDFDict.withContext(context);
  for (const [key, each] of Object.entries(dictionary))
    dict.set(PDFName.of(nameSyntax(key)), toLibrary(each, context));
  return dict;
}

/** What a name says; its bytes are UTF-8 by recommendation (ISO 32000-1, 7.3.5). */
export const textOfName = (name: PDFName): string => Buffer.from(name.asBytes()).toString('utf8');

/** The text of a PDF string. */
export const textOf = (value: PDFObject | undefined): string | undefined =>
  value instanceof PDFString || value instanceof PDFHexString ? value.decodeText() : undefined;
