import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { compose, IDENTITY, type Matrix, matrixOf } from '../../core/measure/matrix';

const RESOURCES = PDFName.of('Resources');
const PATTERN = PDFName.of('Pattern');
const MATRIX = PDFName.of('Matrix');

/**
 * Patterns and gradients of a page go where its content goes: their matrices count from the page's own space, whatever is
 * put before its content (ISO 32000-1, 8.7.3.1). Resources may be shared with other pages, so this page gets its own.
 */
export function movePatterns(page: PDFDict, matrix: Matrix, context: PDFContext): void {
  const resources = page.lookup(RESOURCES);
  const patterns = resources instanceof PDFDict ? resources.lookup(PATTERN) : undefined;
  if (!(resources instanceof PDFDict && patterns instanceof PDFDict) || !patterns.keys().length) return;
  const moved = PDFDict.withContext(context);
  for (const [name, value] of patterns.entries()) moved.set(name, movedPattern(value, matrix, context));
  const own = resources.clone(context);
  own.set(PATTERN, moved);
  page.set(RESOURCES, own);
}

function movedPattern(value: PDFObject, matrix: Matrix, context: PDFContext): PDFObject {
  const pattern = context.lookup(value);
  const dict = pattern instanceof PDFRawStream ? pattern.dict : pattern;
  if (!(dict instanceof PDFDict)) return value;
  const copy = dict.clone(context);
  copy.set(MATRIX, context.obj([...compose(patternMatrix(dict), matrix)]));
  return context.register(
    pattern instanceof PDFRawStream ? PDFRawStream.of(copy, pattern.getContents()) : copy,
  );
}

function patternMatrix(dict: PDFDict): Matrix {
  const given = dict.lookup(MATRIX);
  if (!(given instanceof PDFArray) || given.size() < 6) return IDENTITY;
  const numbers = [0, 1, 2, 3, 4, 5].map((n) => given.lookup(n));
  return numbers.every((each) => each instanceof PDFNumber)
    ? matrixOf(numbers.map((each) => each.asNumber()))
    : IDENTITY;
}

/**
 * A form once more, with tiling patterns of its own, and with forms of its own where those have some; undefined if there is
 * none. Ghostscript and MuPDF draw such a pattern in step with where its object was first used, not with the form that it is in
 * (8.7.3.1): each place needs objects of its own.
 */
export function withOwnPatterns(
  form: PDFRef,
  context: PDFContext,
  /** Forms that were met, each once whatever refers to it: itself, or many others. */
  met = new Map<PDFRef, PDFRef | undefined>(),
): PDFRef | undefined {
  if (met.has(form)) return met.get(form);
  met.set(form, undefined);
  const stream = context.lookup(form);
  if (!(stream instanceof PDFRawStream)) return undefined;
  const resources = stream.dict.lookup(RESOURCES);
  if (!(resources instanceof PDFDict)) return undefined;
  const own = resources.clone(context);
  let found = false;
  const replace = (key: string, made: (value: PDFObject) => PDFObject | undefined) => {
    const all = resources.lookup(PDFName.of(key));
    if (!(all instanceof PDFDict)) return;
    const copy = all.clone(context);
    for (const [name, value] of all.entries()) {
      const once = made(value);
      if (!once) continue;
      copy.set(name, once);
      found = true;
    }
    own.set(PDFName.of(key), copy);
  };
  replace('Pattern', (value) => {
    const pattern = context.lookup(value);
    return pattern instanceof PDFRawStream
      ? context.register(PDFRawStream.of(pattern.dict.clone(context), pattern.getContents()))
      : undefined;
  });
  replace('XObject', (value) => (value instanceof PDFRef ? withOwnPatterns(value, context, met) : undefined));
  if (!found) return undefined;
  const copy = stream.dict.clone(context);
  copy.set(RESOURCES, own);
  const made = context.register(PDFRawStream.of(copy, stream.getContents()));
  met.set(form, made);
  return made;
}
