import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFRef,
  PDFStream,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { objectsNaming } from '../read/fileObjects';
import { applyToPoint, type Matrix } from '../../core/measure/matrix';

const DEEPEST = 20;

/**
 * Explicit destinations (ISO 32000-1, 12.3.2.2) of links and bookmarks follow the content of the pages that they lead to.
 * `moved` says how the content of each page, by its reference, moved in the page's own user space.
 */
export function moveDestinations(context: PDFContext, moved: ReadonlyMap<PDFRef, Matrix>): void {
  if (!moved.size) return;
  const visit = (value: PDFObject | undefined, depth: number): void => {
    if (depth > DEEPEST) return;
    if (value instanceof PDFArray) {
      const page = value.size() > 1 ? value.get(0) : undefined;
      const matrix = page instanceof PDFRef ? moved.get(page) : undefined;
      const kind = value.size() > 1 ? value.get(1) : undefined;
      if (matrix && kind instanceof PDFName) moveDestination(value, kind.decodeText(), matrix);
      else for (let i = 0; i < value.size(); i++) visit(value.get(i), depth + 1);
    } else if (value instanceof PDFDict) for (const [, entry] of value.entries()) visit(entry, depth + 1);
    else if (value instanceof PDFStream) visit(value.dict, depth + 1);
  };
  for (const [, object] of objectsNaming(context, Object.keys(COORDINATES))) visit(object, 0);
}

/** Where in its array each kind of destination has x and y coordinates; null stands for "as it was". */
const COORDINATES: Record<string, { x: number[]; y: number[] }> = {
  XYZ: { x: [2], y: [3] },
  FitH: { x: [], y: [2] },
  FitBH: { x: [], y: [2] },
  FitV: { x: [2], y: [] },
  FitBV: { x: [2], y: [] },
  FitR: { x: [2, 4], y: [3, 5] },
};

function moveDestination(array: PDFArray, kind: string, matrix: Matrix): void {
  const { x = [], y = [] } = COORDINATES[kind] ?? {};
  const move = (index: number, along: 'x' | 'y') => {
    const value = array.lookup(index);
    if (value instanceof PDFNumber)
      array.set(index, PDFNumber.of(applyToPoint(matrix, value.asNumber(), value.asNumber())[along]));
  };
  x.forEach((index) => move(index, 'x'));
  y.forEach((index) => move(index, 'y'));
}
