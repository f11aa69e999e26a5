import { deflateSync } from 'node:zlib';
import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRawStream, type PDFContext, type PDFObject, type PDFRef } from '@cantoo/pdf-lib';
import { applyToBox, invert } from '../core/measure/matrix';
import type { SurveyPage } from '../core/pages/survey';
import { decodeStream } from './decodeStream';
import { boxNumbers } from './numbers';
import type { OpenSource } from './sources';

/**
 * A source page as a Form XObject (ISO 32000-1, 8.10) in the page's own user space. A page with one content stream keeps
 * its compressed bytes; several streams are unpacked and joined, since an operator may not be cut.
 */
export function pageAsForm(source: OpenSource, index: number, survey: SurveyPage, context: PDFContext): PDFRef {
  const { dict, inherited } = source.pages[index]!;
  const media = applyToBox(invert(survey.toUpright), survey.boxes.media);
  const resources = dict.get(PDFName.of('Resources')) ?? inherited.Resources;
  const group = dict.get(PDFName.of('Group'));
  const { contents, filters } = contentOf(dict);
  const form = context.obj({ Type: 'XObject', Subtype: 'Form', BBox: boxNumbers(media), Resources: resources ? source.bring(resources) : {} }) as PDFDict;
  for (const [key, value] of filters) form.set(key, source.bring(value));
  if (group) form.set(PDFName.of('Group'), source.bring(group));
  form.set(PDFName.of('Length'), PDFNumber.of(contents.length));
  return context.register(PDFRawStream.of(form, contents));
}

function contentOf(page: PDFDict): { contents: Uint8Array; filters: [PDFName, PDFObject][] } {
  const value = page.lookup(PDFName.of('Contents'));
  const single = value instanceof PDFArray && value.size() === 1 ? value.lookup(0) : value;
  if (single instanceof PDFRawStream) {
    const keep = ['Filter', 'DecodeParms'].map((key) => [PDFName.of(key), single.dict.get(PDFName.of(key))] as const);
    return { contents: single.getContents(), filters: keep.filter((entry): entry is [PDFName, PDFObject] => entry[1] !== undefined) };
  }
  if (!(value instanceof PDFArray)) return { contents: new Uint8Array(), filters: [] };
  const parts = value.asArray().flatMap((_, i) => [Buffer.from(decodeStream(value.lookup(i))), Buffer.from('\n')]);
  return { contents: deflateSync(Buffer.concat(parts)), filters: [[PDFName.of('Filter'), PDFName.of('FlateDecode')]] };
}
