import { PDFArray, PDFDict, PDFName, PDFNumber, type PDFContext } from '@cantoo/pdf-lib';
import { contains, isSameBox, type Box } from '../../core/measure/box';
import { applyToBox, applyToPoint, isSameMatrix, translate, type Matrix } from '../../core/measure/matrix';
import { remembering } from '../../core/remembering';
import type { Page } from '../../core/model/page';
import type { SurveyPage } from '../../core/model/survey';
import type { ArtItem, Surface } from '../../core/model/surface';
import { boxNumbers, clipTo, concat } from '../objects/numbers';
import { appendContents, wrapContents } from './contents';
import { contentAsForm, drawReflections } from './mirror';
import { movePatterns } from './patterns';
import { placementOf, type Placement } from './placement';
import { TOLERANCES } from '../../core/measure/tolerances';

/** Where a page came to lie. */
export interface Placed {
  /** Leads from its user space to page space. */
  toPage: Matrix;
  /** How its content moved, where it was scaled. */
  content?: Matrix | undefined;
}

/** Gives a page its boxes and what its new size, turn and bleed ask of its content. */
export function placePage(
  dict: PDFDict,
  page: Page,
  { bleed, trim, items }: Surface,
  crop: 'bleed' | 'trim',
  survey: SurveyPage | undefined,
  context: PDFContext,
  /** The page that is mirrored at its edges, where that is needed. */
  shows = dict,
): Placed {
  const { toPage, toRaw, content, rotate }: Placement =
    survey && page.art ? placementOf(page.art, survey) : blankAt(bleed);
  setBoxes(dict, (b) => boxIn(context, toRaw, b), { bleed, trim, crop });
  if (!survey || !page.art) return { toPage };
  dict.set(PDFName.of('Rotate'), context.obj(rotate));
  const reach = applyToBox(page.art.place, page.art.reach);
  const spills = !contains(reach, bleed, TOLERANCES.place);
  const reflections = items.filter(
    (item): item is ArtItem => item.kind === 'art' && !item.laid && item.matrix !== page.art?.place,
  );
  const form = reflections.length ? contentAsForm(shows, survey, context) : undefined;
  // What the source never showed must not come to light when the page grows.
  if (content || spills)
    wrapContents(
      dict,
      `q ${spills ? `${clipTo(applyToBox(toRaw, reach))} ` : ''}${content ? concat(content) : ''}`,
      'Q',
      context,
    );
  if (form) appendContents(dict, drawReflections(dict, form, reflections, toPage, survey, context), context);
  if (content) {
    movePatterns(dict, content, context);
    moveAnnotations(dict, content);
  }
  return { toPage, content };
}

const blankAt = ({ x0, y0 }: Box): Placement => ({
  toPage: translate(x0, y0),
  toRaw: translate(-x0, -y0),
  rotate: 0,
});

/** The last few boxes of each output: most pages have the same, and nothing changes one. */
const boxes = new WeakMap<PDFContext, (box: RawBox) => PDFArray>();
const KEPT_BOXES = 8;
interface RawBox {
  toRaw: Matrix;
  of: Box;
}
function boxIn(context: PDFContext, toRaw: Matrix, of: Box): PDFArray {
  const made =
    boxes.get(context) ??
    remembering<RawBox, PDFArray>(
      (one, other) => isSameMatrix(one.toRaw, other.toRaw) && isSameBox(one.of, other.of),
      (box) => context.obj(boxNumbers(applyToBox(box.toRaw, box.of))),
      KEPT_BOXES,
    );
  boxes.set(context, made);
  return made({ toRaw, of });
}

/** Its boxes, as `raw` has them in its user space (ISO 32000-1, 14.11.2). */
function setBoxes(
  dict: PDFDict,
  raw: (box: Box) => PDFArray,
  { bleed, trim, crop }: Pick<Surface, 'bleed' | 'trim'> & { crop: 'bleed' | 'trim' },
): void {
  const [outer, inner] = [raw(bleed), raw(trim)];
  dict.set(PDFName.of('MediaBox'), outer);
  dict.set(PDFName.of('BleedBox'), outer);
  dict.set(PDFName.of('TrimBox'), inner);
  dict.delete(PDFName.of('ArtBox'));
  // What it says of itself holds no more, as where it was a side of a sheet.
  dict.delete(PDFName.of('PieceInfo'));
  if (crop === 'trim') dict.set(PDFName.of('CropBox'), inner);
  else dict.delete(PDFName.of('CropBox'));
}

/** Links and other annotations go where their place on the page goes. */
function moveAnnotations(dict: PDFDict, matrix: Matrix): void {
  const annotations = dict.lookup(PDFName.of('Annots'));
  if (!(annotations instanceof PDFArray)) return;
  for (let i = 0; i < annotations.size(); i++) {
    const annotation = annotations.lookup(i);
    if (!(annotation instanceof PDFDict)) continue;
    for (const key of ['Rect', 'QuadPoints', 'L', 'Vertices']) {
      const points = annotation.lookup(PDFName.of(key));
      if (points instanceof PDFArray) movePoints(points, matrix);
    }
  }
}

function movePoints(points: PDFArray, matrix: Matrix): void {
  for (let i = 0; i + 1 < points.size(); i += 2) {
    const [x, y] = [points.lookup(i), points.lookup(i + 1)];
    if (!(x instanceof PDFNumber && y instanceof PDFNumber)) return;
    const moved = applyToPoint(matrix, x.asNumber(), y.asNumber());
    points.set(i, PDFNumber.of(moved.x));
    points.set(i + 1, PDFNumber.of(moved.y));
  }
}
