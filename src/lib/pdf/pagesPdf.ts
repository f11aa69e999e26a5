import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFNull,
  PDFNumber,
  PDFRef,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';
import { contains, type Box } from '../core/measure/box';
import { applyToBox, applyToPoint, compose, invert, translate, type Matrix } from '../core/measure/matrix';
import { faceLabels } from '../core/pages/labels';
import { artsOf, facesOf, sideAt, type Page, type PageList, type Side } from '../core/pages/page';
import { readingOrder } from '../core/pages/panels';
import type { SurveyPage, Surveys } from '../core/pages/survey';
import { pageSurface } from '../core/surface/pageSurface';
import type { ArtItem } from '../core/surface/surface';
import type { Embedded } from './fonts';
import { embedInDocument } from './libraryFonts';
import { showText } from './textItems';
import { moveDestinations } from './destinations';
import { writeLabels } from './labels';
import { contentAsForm, drawForms } from './mirror';
import { boxNumbers, clipTo, concat } from './numbers';
import { placementOf } from './placement';
import type { WriteContext } from './sheetsPdf';
import { mergeLayers, openSources, writeInfo, type OpenSource, type OpenSources } from './sources';
import { writePdf } from './writePdf';

/**
 * Writes the pages in reading order. Pages stay pages: links, layers, tags and form fields of the source with most pages
 * stay; MediaBox and BleedBox are trim plus bleed, CropBox the trim where asked. A page of another scale has one matrix
 * put before its content; bleed that is mirrored is the content once more, as a form. Throws PdfError.
 */
export async function writePagesPdf(
  list: PageList,
  crop: 'bleed' | 'trim',
  job: WriteContext,
): Promise<void> {
  const faces = facesOf(list);
  const arts = faces.flatMap(artsOf);
  const uses = arts.map(({ source }) => source);
  const sources = await openSources(uses, job.read, job.surveys, () =>
    PDFDocument.create({ updateMetadata: false }),
  );
  const { context, base } = sources;
  const used = new Set(arts.map(({ source, index }) => `${source}:${index}`));
  for (const [id, source] of sources.byId)
    source.pages.forEach((page, index) => {
      // Pages taken out must not ride along as targets of links and bookmarks.
      if (!used.has(`${id}:${index}`))
        source.document.context.assign(page.ref, PDFNull as unknown as PDFDict);
    });
  const tree = context.nextRef();
  const placed = new Set<string>();
  const kids: PDFRef[] = [];
  const moved = new Map<PDFRef, Matrix>();
  const order = readingOrder(list);
  const words = faces.flatMap((page) => page.words ?? []);
  const face = words.length ? embedInDocument(context, words) : undefined;
  // Before any page gets its new size: the forms show their source pages as they came.
  const joined = formsOf(faces, sources, job.surveys);
  for (const index of order) {
    const page = faces[index]!;
    if (page.more) {
      const ref = writeJoined(page, sideAt(index, list), crop, joined, job.surveys, context);
      context.lookup(ref, PDFDict).set(PDFName.of('Parent'), tree);
      kids.push(ref);
      await job.onProgress?.(kids.length, order.length);
      continue;
    }
    const key = page.art && `${page.art.source}:${page.art.index}`;
    const repeated = key !== undefined && placed.has(key);
    if (key) placed.add(key);
    const { ref, dict } = page.art
      ? bringPage(sources.byId.get(page.art.source)!, page.art.index, repeated, context)
      : newPage(context);
    dict.set(PDFName.of('Parent'), tree);
    const content = setBoxes(
      dict,
      page,
      sideAt(index, list),
      crop,
      page.art && job.surveys[page.art.source]!.pages[page.art.index],
      context,
    );
    if (content) moved.set(ref, content);
    if (face && page.words) writeWords(dict, page, sideAt(index, list), face, context);
    kids.push(ref);
    await job.onProgress?.(kids.length, order.length);
  }
  // What was only joined is no page any more, and must not ride along as the target of a link.
  const here = new Set(kids);
  for (const { page } of joined.values())
    if (!here.has(page)) context.assign(page, PDFNull as unknown as PDFDict);
  const labels = faceLabels(list);
  moveDestinations(context, moved);
  context.assign(tree, context.obj({ Type: 'Pages', Count: kids.length, Kids: kids }));
  const { catalog } = base;
  catalog.set(PDFName.of('Pages'), tree);
  catalog.set(
    PDFName.of('PageLabels'),
    writeLabels(
      order.map((index) => labels.get(faces[index]!.id)!),
      context,
    ),
  );
  const layers = mergeLayers(sources);
  if (layers) catalog.set(PDFName.of('OCProperties'), layers);
  const preferences = catalog.lookup(PDFName.of('ViewerPreferences'));
  catalog.set(
    PDFName.of('ViewerPreferences'),
    preferences instanceof PDFDict ? preferences : context.obj({}),
  );
  (catalog.lookup(PDFName.of('ViewerPreferences')) as PDFDict).set(
    PDFName.of('DisplayDocTitle'),
    context.obj(true),
  );
  const root = context.trailerInfo.Root as PDFRef;
  await writePdf(
    { context, root, info: writeInfo(context, job.title, job.at), id: job.id, version: sources.version },
    job.sink,
  );
}

/** The page in the output, with all it inherited made its own; a second use of a page is a copy without its annotations. */
function bringPage(
  source: OpenSource,
  index: number,
  repeated: boolean,
  context: PDFContext,
): { ref: PDFRef; dict: PDFDict } {
  const page = source.pages[index]!;
  if (!repeated)
    for (const [key, value] of Object.entries(page.inherited))
      if (value && !page.dict.has(PDFName.of(key))) page.dict.set(PDFName.of(key), value);
  const ref = source.bring(page.ref);
  const dict = context.lookup(ref, PDFDict);
  if (!repeated) return { ref, dict };
  const copy = dict.clone();
  for (const key of ['Annots', 'StructParents', 'B']) copy.delete(PDFName.of(key));
  return { ref: context.register(copy), dict: copy };
}

/** The content of every source page that is joined on another, as a form, with the page that it came from. */
function formsOf(
  faces: readonly Page[],
  { byId, context }: OpenSources,
  surveys: Surveys,
): Map<string, { page: PDFRef; form: PDFRef }> {
  const forms = new Map<string, { page: PDFRef; form: PDFRef }>();
  for (const { source, index } of faces.filter(({ more }) => more).flatMap(artsOf)) {
    if (forms.has(`${source}:${index}`)) continue;
    const { ref, dict } = bringPage(byId.get(source)!, index, false, context);
    const form = contentAsForm(dict, surveys[source]!.pages[index]!, context);
    forms.set(`${source}:${index}`, { page: ref, form });
  }
  return forms;
}

/** A page on which several were joined: each comes as a form of its content, clipped to its own trim. */
function writeJoined(
  page: Page,
  side: Side,
  crop: 'bleed' | 'trim',
  forms: ReadonlyMap<string, { form: PDFRef }>,
  surveys: Surveys,
  context: PDFContext,
): PDFRef {
  const { ref, dict } = newPage(context);
  setBoxes(dict, page, side, crop, undefined, context);
  const { bleed, items } = pageSurface(page, side);
  const toPage = translate(bleed.x0, bleed.y0);
  for (const item of items) {
    if (item.kind !== 'art') continue;
    const { form } = forms.get(`${item.source}:${item.index}`)!;
    const survey = surveys[item.source]!.pages[item.index]!;
    appendContents(dict, drawForms(dict, form, [item], toPage, survey, context, false), context);
  }
  return ref;
}

function newPage(context: PDFContext): { ref: PDFRef; dict: PDFDict } {
  const dict = context.obj({ Type: 'Page', Resources: {} }) as PDFDict;
  return { ref: context.register(dict), dict };
}

/** Gives a page its boxes and what its new size, turn and bleed ask of its content; returns how its content moved, where it was scaled. */
function setBoxes(
  dict: PDFDict,
  page: Page,
  side: Side,
  crop: 'bleed' | 'trim',
  survey: SurveyPage | undefined,
  context: PDFContext,
): Matrix | undefined {
  const { bleed, trim, items } = pageSurface(page, side);
  const { toPage, content, rotate } =
    survey && page.art
      ? placementOf(page.art, survey)
      : { toPage: translate(bleed.x0, bleed.y0), content: undefined, rotate: 0 };
  const toRaw = invert(toPage);
  const raw = (b: Box) => context.obj(boxNumbers(applyToBox(toRaw, b)));
  for (const key of ['MediaBox', 'BleedBox']) dict.set(PDFName.of(key), raw(bleed));
  dict.set(PDFName.of('TrimBox'), raw(trim));
  dict.delete(PDFName.of('ArtBox'));
  if (crop === 'trim') dict.set(PDFName.of('CropBox'), raw(trim));
  else dict.delete(PDFName.of('CropBox'));
  if (!survey || !page.art) return undefined;
  dict.set(PDFName.of('Rotate'), context.obj(rotate));
  const reach = applyToBox(page.art.place, page.art.reach);
  const spills = !contains(reach, bleed, 0.01);
  const reflections = items.filter(
    (item) => item.kind === 'art' && item.matrix !== page.art!.place,
  ) as ArtItem[];
  const form = reflections.length ? contentAsForm(dict, survey, context) : undefined;
  // What the source never showed must not come to light when the page grows.
  if (content || spills)
    wrapContents(
      dict,
      `q ${spills ? `${clipTo(applyToBox(toRaw, reach))} ` : ''}${content ? concat(content) : ''}`,
      'Q',
      context,
    );
  if (form) appendContents(dict, drawForms(dict, form, reflections, toPage, survey, context, true), context);
  if (content) moveAnnotations(dict, content);
  return content;
}

/** Puts its words on a page that was made here, whose resources are its own. */
function writeWords(
  dict: PDFDict,
  page: Page,
  side: Side,
  face: Embedded<PDFRef>,
  context: PDFContext,
): void {
  dict.lookup(PDFName.of('Resources'), PDFDict).set(PDFName.of('Font'), context.obj({ T: face.ref }));
  const { bleed, items } = pageSurface(page, side);
  for (const item of items) {
    if (item.kind !== 'text') continue;
    const matrix = compose(item.matrix, translate(-bleed.x0, -bleed.y0));
    appendContents(dict, context.register(context.flateStream(showText({ ...item, matrix }, face))), context);
  }
}

function wrapContents(dict: PDFDict, before: string, after: string, context: PDFContext): void {
  dict.set(
    PDFName.of('Contents'),
    context.obj([
      context.register(context.flateStream(`${before}\n`)),
      ...contentParts(dict),
      context.register(context.flateStream(`\n${after}`)),
    ]),
  );
}

function appendContents(dict: PDFDict, part: PDFRef, context: PDFContext): void {
  dict.set(PDFName.of('Contents'), context.obj([...contentParts(dict), part]));
}

function contentParts(dict: PDFDict): PDFObject[] {
  const key = PDFName.of('Contents');
  const [value, found] = [dict.get(key), dict.lookup(key)];
  return found instanceof PDFArray ? found.asArray() : value ? [value] : [];
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
