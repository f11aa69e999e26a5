import {
  PDFArray,
  PDFName,
  type PDFContext,
  type PDFDict,
  type PDFObject,
  type PDFRef,
} from '@cantoo/pdf-lib';

export const CONTENTS = PDFName.of('Contents');

/** The streams of a page's content. */
export function contentParts(dict: PDFDict): PDFObject[] {
  const [value, found] = [dict.get(CONTENTS), dict.lookup(CONTENTS)];
  return found instanceof PDFArray ? found.asArray() : value ? [value] : [];
}

export function wrapContents(dict: PDFDict, before: string, after: string, context: PDFContext): void {
  dict.set(
    PDFName.of('Contents'),
    context.obj([
      context.register(context.flateStream(`${before}\n`)),
      ...contentParts(dict),
      context.register(context.flateStream(`\n${after}`)),
    ]),
  );
}

export function appendContents(dict: PDFDict, part: PDFRef, context: PDFContext): void {
  dict.set(PDFName.of('Contents'), context.obj([...contentParts(dict), part]));
}
