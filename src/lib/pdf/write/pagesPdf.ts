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
import { contains, type Box } from '../../core/measure/box';
import { applyToBox, applyToPoint, invert, translate, type Matrix } from '../../core/measure/matrix';
import { faceLabels } from '../../core/numbers/labels';
import { artsOf, facesOf, laidOn, sideAt } from '../../core/pages/page';
import type { Art } from '../../core/model/art';
import type { Page, PageList } from '../../core/model/page';
import { readingOrder } from '../../core/pages/panels';
import type { SurveyPage, Surveys } from '../../core/model/survey';
import { pageSurface } from '../../core/surface/pageSurface';
import type { ArtItem, Item, Surface } from '../../core/model/surface';
import { activeContent } from '../read/active';
import { Kit } from './kit';
import { renameInks } from './renameInks';
import { addTo, toLibrary } from '../objects/libraryObjects';
import { moveDestinations } from './destinations';
import { dropDeadTargets } from '../read/targets';
import { writeLabels } from '../objects/labels';
import { contentAsForm, drawReflections, nameForm } from './mirror';
import { boxNumbers, clipTo, concat } from '../objects/numbers';
import { movePatterns, withOwnPatterns } from './patterns';
import { placementOf } from './placement';
import { placesApart } from './places';
import type { WriteContext } from './sheetsPdf';
import { mergeLayers, openSources, writeInfo, type OpenSource, type OpenSources } from './sources';
import { Content, writePdf } from './writePdf';
import { entryAt, entryOf } from '../../core/entries';

const [CONTENTS, RESOURCES, FONT] = ['Contents', 'Resources', 'Font'].map((key) => PDFName.of(key)) as [
  PDFName,
  PDFName,
  PDFName,
];

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
  const order = job.only ?? readingOrder(list);
  const shown = order.map((index) => entryAt(faces, index));
  const arts = shown.flatMap((page) => [...artsOf(page), ...laidOn(page)]);
  const uses = arts.map(({ source }) => source);
  const sources = await openSources(uses, drawnSources(shown), job.read, job.surveys, () =>
    PDFDocument.create({ updateMetadata: false }),
  );
  const { context, base, byId, printed } = sources;
  const used = new Set(arts.map(({ source, index }) => `${source}:${index}`));
  let gone = false;
  for (const [id, source] of byId)
    source.pages.forEach((page, index) => {
      // Pages taken out must not ride along as targets of links and bookmarks.
      if (used.has(`${id}:${index}`)) return;
      source.document.context.assign(page.ref, PDFNull);
      gone = true;
    });
  const tree = context.nextRef();
  /** A source page, and, where it comes again, a copy of it that has no annotations but those that print, as content. */
  const pageOf = ({ source, index }: Art, key: string): { ref: PDFRef; dict: PDFDict } => {
    const before = placed.get(key);
    if (!before) {
      const brought = bringPage(entryOf(byId, source), index, context);
      placed.set(key, brought.dict.clone(context));
      return brought;
    }
    const flat = printed.get(source);
    const copy = (flat ? bringPage(flat, index, context).dict : before).clone(context);
    for (const entry of ['Annots', 'StructParents', 'B']) copy.delete(PDFName.of(entry));
    return { ref: context.register(copy), dict: copy };
  };
  /** Pages that came already, as they were before anything was done to them. */
  const placed = new Map<string, PDFDict>();
  const kids: PDFRef[] = [];
  const moved = new Map<PDFRef, Matrix>();
  // Before any page gets its new size: the forms show their source pages as they came.
  const forms = formsOf(shown, sources, job.surveys);
  const apart = placesApart<string>();
  const kit = new Kit<PDFRef>(
    ({ source, index, laid, matrix }) => {
      const key = formKey({ source, index }, fades(laid?.opacity));
      const place = apart(key, matrix);
      const { form, page, name } = entryOf(forms, key);
      const there = `${key} ${place}`;
      const own = !place || forms.has(there) ? undefined : withOwnPatterns(form, context);
      if (own) forms.set(there, { name: `P${forms.size + 1}`, page, form: own });
      return {
        name: forms.get(there)?.name ?? name,
        toUpright: entryAt(job.surveys[source]!.pages, index).toUpright,
      };
    },
    () => context.nextRef(),
    list.inks,
  );
  const extra = new Extras(kit, context);
  for (const index of order) {
    const page = entryAt(faces, index);
    const side = sideAt(index, list);
    const surface = pageSurface(page, side);
    if (page.more) {
      const { ref, dict } = newPage(context);
      const { toPage } = setBoxes(dict, page, surface, crop, undefined, context);
      extra.draw(dict, surface.items, toPage);
      dict.set(PDFName.of('Parent'), tree);
      kids.push(ref);
      await job.onProgress?.(kids.length, order.length);
      continue;
    }
    const key = page.art && `${page.art.source}:${page.art.index}`;
    const { ref, dict } = page.art ? pageOf(page.art, key!) : newPage(context);
    dict.set(PDFName.of('Parent'), tree);
    const survey = page.art && job.surveys[page.art.source]!.pages[page.art.index];
    const flat = page.art && page.mirrored && printed.get(page.art.source);
    const shows = flat ? bringPage(flat, page.art!.index, context).dict : dict;
    const { toPage, content } = setBoxes(dict, page, surface, crop, survey, context, shows);
    if (content) moved.set(ref, content);
    extra.draw(
      dict,
      surface.items.filter((item) => item.kind !== 'art' || item.laid),
      toPage,
    );
    kids.push(ref);
    await job.onProgress?.(kids.length, order.length);
  }
  const ownLayers = extra.finish(forms);
  if (list.inks?.length) renameInks(context, list.inks);
  // What was only joined or laid on others is no page any more, and must not ride along as the target of a link.
  const here = new Set(kids);
  for (const { page } of forms.values())
    if (!here.has(page)) {
      context.assign(page, PDFNull);
      gone = true;
    }
  if (gone)
    dropDeadTargets(
      base,
      kids.map((kid) => context.lookup(kid, PDFDict)),
      here,
    );
  const labels = faceLabels(list);
  moveDestinations(context, moved);
  context.assign(tree, context.obj({ Type: 'Pages', Count: kids.length, Kids: kids }));
  const { catalog } = base;
  catalog.set(PDFName.of('Pages'), tree);
  catalog.set(
    PDFName.of('PageLabels'),
    writeLabels(
      order.map((index) => entryOf(labels, entryAt(faces, index).id)),
      context,
    ),
  );
  const layers = mergeLayers(sources, ownLayers);
  if (layers) catalog.set(PDFName.of('OCProperties'), layers);
  const preferences = catalog.lookup(PDFName.of('ViewerPreferences'));
  catalog.set(
    PDFName.of('ViewerPreferences'),
    preferences instanceof PDFDict ? preferences : context.obj({}),
  );
  const shownAs = catalog.lookup(PDFName.of('ViewerPreferences')) as PDFDict;
  shownAs.set(PDFName.of('DisplayDocTitle'), context.obj(true));
  // ISO 32000-1, table 150: how viewers lay pages side by side.
  if (list.book.spine === 'right') shownAs.set(PDFName.of('Direction'), PDFName.of('R2L'));
  else shownAs.delete(PDFName.of('Direction'));
  // What was surveyed by an older Folder may hold it too.
  if (uses.some((source) => job.surveys[source]?.active?.length !== 0)) activeContent(context, true);
  const root = context.trailerInfo.Root as PDFRef;
  await writePdf(
    { context, root, info: writeInfo(context, job.title, job.at), id: job.id, version: sources.version },
    job.sink,
  );
}

/** The page in the output, with all it inherited made its own. */
function bringPage(source: OpenSource, index: number, context: PDFContext): { ref: PDFRef; dict: PDFDict } {
  const page = entryAt(source.pages, index);
  for (const [key, value] of Object.entries(page.inherited))
    if (value && !page.dict.has(PDFName.of(key))) page.dict.set(PDFName.of(key), value);
  const ref = source.bring(page.ref);
  return { ref, dict: context.lookup(ref, PDFDict) };
}

/** Sources whose pages are drawn besides being pages: joined, laid on others, mirrored at their edges, or there more than once. */
function drawnSources(shown: readonly Page[]): ReadonlySet<string> {
  const drawn = new Set<string>();
  const met = new Set<string>();
  for (const page of shown) {
    const arts = [...laidOn(page), ...(page.more || page.mirrored ? artsOf(page) : [])];
    for (const { source } of arts) drawn.add(source);
    if (!page.art) continue;
    const key = `${page.art.source}:${page.art.index}`;
    if (met.has(key)) drawn.add(page.art.source);
    met.add(key);
  }
  return drawn;
}

const fades = (opacity: number | undefined): boolean => opacity !== undefined && opacity < 1;
const formKey = ({ source, index }: Pick<Art, 'source' | 'index'>, group: boolean): string =>
  `${source}:${index}${group ? ' group' : ''}`;

/** A source page's content as a form, the name it goes by, and the page that it came from. */
interface PlacedForm {
  name: string;
  form: PDFRef;
  page: PDFRef;
}

/** The content of every source page that is joined on another or laid on it. */
function formsOf(
  faces: readonly Page[],
  { byId, printed, context }: OpenSources,
  surveys: Surveys,
): Map<string, PlacedForm> {
  const forms = new Map<string, PlacedForm>();
  const add = ({ source, index }: Art, group: boolean) => {
    const key = formKey({ source, index }, group);
    if (forms.has(key)) return;
    const { ref, dict } = bringPage(printed.get(source) ?? entryOf(byId, source), index, context);
    const form = contentAsForm(dict, entryAt(surveys[source]!.pages, index), context, group);
    forms.set(key, { name: `P${forms.size + 1}`, page: ref, form });
  };
  for (const page of faces) {
    if (page.more) for (const art of artsOf(page)) add(art, false);
    for (const { arts, opacity } of page.laid ?? []) for (const art of arts) add(art, fades(opacity));
  }
  return forms;
}

/** What is put on pages besides their own content, each time as a form, all with the same resources. */
class Extras {
  private readonly resources: PDFRef;
  private shell: PDFRef | undefined;
  constructor(
    private readonly kit: Kit<PDFRef>,
    private readonly context: PDFContext,
  ) {
    this.resources = context.nextRef();
  }

  /** Draws items of a page behind and before its content; `toPage` leads from its user space to page space. */
  draw(dict: PDFDict, items: readonly Item[], toPage: Matrix): void {
    const isBehind = (item: Item) => item.kind === 'art' && !!item.laid?.behind;
    const behind = items.filter(isBehind);
    const before = behind.length ? items.filter((item) => !isBehind(item)) : items;
    if (!behind.length && !before.length) return;
    const { context } = this;
    // Whatever the page's content leaves changed must not reach what is drawn after it.
    this.shell ??= this.content('q\n');
    const own = contentParts(dict);
    const apart = own.length > 0 && before.length > 0;
    const parts = [
      this.part(dict, behind, toPage, ''),
      ...(apart ? [this.shell, ...own] : own),
      this.part(dict, before, toPage, apart ? '\nQ\n' : ''),
    ];
    const contents = PDFArray.withContext(context);
    for (const part of parts) if (part) contents.push(part);
    dict.set(CONTENTS, contents);
  }

  private content(operators: string): PDFRef {
    return this.context.register(new Content(operators));
  }

  /** Content that draws items, after what `first` says: as it is where they need fonts alone, which is quick, else as a form with resources of its own. */
  private part(dict: PDFDict, items: readonly Item[], toPage: Matrix, first: string): PDFRef | undefined {
    if (!items.length) return undefined;
    const { context } = this;
    const place = concat(invert(toPage));
    const fonts = this.kit.fontsOf(items);
    if (fonts && addFonts(dict, fonts, context))
      return this.content(`${first}q ${place}\n${this.kit.draw(items)}\nQ`);
    const box = boxNumbers(mediaOf(dict, toPage));
    const form = context.stream(this.kit.draw(items), {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: box,
      Resources: this.resources,
    });
    const name = nameForm(dict, context.register(form), context);
    return this.content(`${first}q ${place} /${name} Do Q`);
  }

  /** Writes what was needed; the layers that were made. */
  finish(forms: ReadonlyMap<string, PlacedForm>): PDFRef[] {
    const { resources, layers } = this.kit.finish(addTo(this.context), (ref, dictionary) =>
      this.context.assign(ref, toLibrary(dictionary, this.context)),
    );
    const XObject = Object.fromEntries([...forms.values()].map(({ name, form }) => [name, form]));
    this.context.assign(this.resources, toLibrary({ ...resources, XObject }, this.context));
    return layers;
  }
}

function newPage(context: PDFContext): { ref: PDFRef; dict: PDFDict } {
  const dict = context.obj({ Type: 'Page', Resources: {} });
  return { ref: context.register(dict), dict };
}

/** Gives a page its boxes and what its new size, turn and bleed ask of its content; returns what leads from its user space to page space, and how its content moved, where it was scaled. */
function setBoxes(
  dict: PDFDict,
  page: Page,
  { bleed, trim, items }: Surface,
  crop: 'bleed' | 'trim',
  survey: SurveyPage | undefined,
  context: PDFContext,
  /** The page that is mirrored at its edges, where that is needed. */
  shows = dict,
): { toPage: Matrix; content?: Matrix | undefined } {
  const { toPage, content, rotate } =
    survey && page.art
      ? placementOf(page.art, survey)
      : { toPage: translate(bleed.x0, bleed.y0), content: undefined, rotate: 0 };
  const toRaw = invert(toPage);
  const raw = (b: Box) => context.obj(boxNumbers(applyToBox(toRaw, b)));
  for (const key of ['MediaBox', 'BleedBox']) dict.set(PDFName.of(key), raw(bleed));
  dict.set(PDFName.of('TrimBox'), raw(trim));
  dict.delete(PDFName.of('ArtBox'));
  // What it says of itself holds no more, as where it was a side of a sheet.
  dict.delete(PDFName.of('PieceInfo'));
  if (crop === 'trim') dict.set(PDFName.of('CropBox'), raw(trim));
  else dict.delete(PDFName.of('CropBox'));
  if (!survey || !page.art) return { toPage };
  dict.set(PDFName.of('Rotate'), context.obj(rotate));
  const reach = applyToBox(page.art.place, page.art.reach);
  const spills = !contains(reach, bleed, 0.01);
  const reflections = items.filter(
    (item) => item.kind === 'art' && !item.laid && item.matrix !== page.art!.place,
  ) as ArtItem[];
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

/** Names that are asked for on every page, each read once. */
const READ_NAMES = new Map<string, PDFName>();
function nameOf(name: string): PDFName {
  const made = READ_NAMES.get(name) ?? PDFName.of(name);
  READ_NAMES.set(name, made);
  return made;
}

/** Gives a page's resources fonts more, which do no harm where others share them; false where a name is taken. */
function addFonts(dict: PDFDict, fonts: ReadonlyMap<string, PDFRef>, context: PDFContext): boolean {
  const resources = dict.lookup(RESOURCES);
  if (!(resources instanceof PDFDict)) return false;
  const known = resources.lookup(FONT);
  const own = known instanceof PDFDict ? known : PDFDict.withContext(context);
  const names = [...fonts].map(([name, ref]) => [nameOf(name), ref] as const);
  if (names.some(([name, ref]) => own.has(name) && own.get(name) !== ref)) return false;
  if (own !== known) resources.set(FONT, own);
  for (const [name, ref] of names) own.set(name, ref);
  return true;
}

/** The MediaBox that a page was given, in page space. */
function mediaOf(dict: PDFDict, toPage: Matrix): Box {
  const [x0, y0, x1, y1] = dict
    .lookup(PDFName.of('MediaBox'), PDFArray)
    .asArray()
    .map((each) => (each as PDFNumber).asNumber()) as [number, number, number, number];
  return applyToBox(toPage, { x0, y0, x1, y1 });
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
  const [value, found] = [dict.get(CONTENTS), dict.lookup(CONTENTS)];
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
