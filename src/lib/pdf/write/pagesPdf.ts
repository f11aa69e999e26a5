import { PDFDict, PDFDocument, PDFName, PDFNull, PDFRef, type PDFContext } from '@cantoo/pdf-lib';
import { entryAt, entryOf } from '../../core/entries';
import type { Matrix } from '../../core/measure/matrix';
import type { Page, PageList } from '../../core/model/page';
import { faceLabels } from '../../core/numbers/labels';
import { artsOf, facesOf, laidOn, sideAt } from '../../core/pages/page';
import { readingOrder } from '../../core/pages/panels';
import { pageSurface } from '../../core/surface/pageSurface';
import { readText } from '../../core/surface/readText';
import { writeLabels } from '../objects/labels';
import { activeContent } from '../read/active';
import { dropDeadTargets } from '../read/targets';
import { moveDestinations } from './destinations';
import { Extras } from './extras';
import { Kit } from './kit';
import { ArtSet, bringPage, newPage, OutputPages } from './outputPages';
import { comeAgain, drawnSources, PageForms } from './pageForms';
import { placePage } from './placePage';
import { renameInks } from './renameInks';
import type { WriteContext } from './sheetsPdf';
import { mergeLayers, openSources, writeInfo, type OpenSources } from './sources';
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
  const order = job.only ?? readingOrder(list);
  const shown = order.map((index) => entryAt(faces, index));
  const uses = shown.flatMap((page) => [...artsOf(page), ...laidOn(page)]);
  const sources = await openSources(
    uses.map(({ source }) => source),
    drawnSources(shown),
    job.read,
    job.surveys,
    () => PDFDocument.create({ updateMetadata: false }),
  );
  const { context, base } = sources;
  const dropped = dropUnused(sources, new ArtSet(uses));
  const writer = new PageWriter(list, crop, job, sources, shown);
  for (const [n, index] of order.entries()) {
    writer.page(entryAt(faces, index), index);
    await job.onProgress?.(n + 1, order.length);
  }
  const { kids, layers } = writer.finish(dropped);
  const tree = writer.tree;
  context.assign(tree, context.obj({ Type: 'Pages', Count: kids.length, Kids: kids }));
  const labels = faceLabels(list);
  base.catalog.set(PDFName.of('Pages'), tree);
  base.catalog.set(
    PDFName.of('PageLabels'),
    writeLabels(
      shown.map(({ id }) => entryOf(labels, id)),
      context,
    ),
  );
  if (layers) base.catalog.set(PDFName.of('OCProperties'), layers);
  setPreferences(base.catalog, list.book.spine === 'right', context);
  activeContent(context, true);
  const root = context.trailerInfo.Root;
  if (!(root instanceof PDFRef)) throw new Error('the catalog is no object of its own');
  await writePdf(
    { context, root, info: writeInfo(context, job.title, job.at), id: job.id, version: sources.version },
    job.sink,
  );
}

/** Pages taken out must not ride along as targets of links and bookmarks. Returns whether there were any. */
function dropUnused({ byId }: OpenSources, used: ArtSet): boolean {
  let dropped = false;
  for (const [id, source] of byId)
    source.pages.forEach(({ ref }, index) => {
      if (used.has(id, index)) return;
      source.document.context.assign(ref, PDFNull);
      dropped = true;
    });
  return dropped;
}

/** Puts pages into the output, one after another. */
class PageWriter {
  readonly tree: PDFRef;
  private readonly kids: PDFRef[] = [];
  private readonly moved = new Map<PDFRef, Matrix>();
  private readonly pages: OutputPages;
  private readonly forms: PageForms;
  private readonly extras: Extras;

  constructor(
    private readonly list: PageList,
    private readonly crop: 'bleed' | 'trim',
    private readonly job: WriteContext,
    private readonly sources: OpenSources,
    shown: readonly Page[],
  ) {
    const { context } = sources;
    this.tree = context.nextRef();
    this.pages = new OutputPages(sources, new ArtSet(comeAgain(shown)));
    this.forms = new PageForms(shown, sources, job.surveys);
    this.extras = new Extras(new Kit<PDFRef>(this.forms.use, () => context.nextRef(), list.inks), context);
  }

  page(page: Page, index: number): void {
    const { context, printed } = this.sources;
    const surface = pageSurface(page, sideAt(index, this.list));
    // Pages that are joined are drawn as forms on a page of their own.
    const art = page.more ? undefined : page.art;
    const { ref, dict } = art ? this.pages.of(art) : newPage(context);
    dict.set(PDFName.of('Parent'), this.tree);
    const survey = art && this.job.surveys[art.source]?.pages[art.index];
    const flat = art && page.mirrored && printed.get(art.source);
    const shows = flat ? bringPage(flat, art.index, context).dict : dict;
    const { toPage, content } = placePage(dict, page, surface, this.crop, survey, context, shows);
    if (content) this.moved.set(ref, content);
    const extra = page.more
      ? surface.items
      : surface.items.filter((item) => item.kind !== 'art' || item.laid);
    const read = this.job.words ? readText(page, this.job.words) : [];
    this.extras.draw(dict, [...extra, ...read], toPage);
    this.kids.push(ref);
  }

  /** Writes what was put on pages, and mends what leads to pages. Returns the pages and the layers. */
  finish(dropped: boolean): { kids: readonly PDFRef[]; layers: PDFDict | undefined } {
    const { context, base } = this.sources;
    const ownLayers = this.extras.finish(this.forms.all);
    if (this.list.inks?.length) renameInks(context, this.list.inks);
    // What was only joined or laid on others is no page any more, and must not ride along as the target of a link.
    const here = new Set(this.kids);
    const gone = this.forms.all.filter(({ page }) => !here.has(page));
    for (const { page } of gone) context.assign(page, PDFNull);
    if (dropped || gone.length)
      dropDeadTargets(
        base,
        this.kids.map((kid) => context.lookup(kid, PDFDict)),
        here,
      );
    moveDestinations(context, this.moved);
    return { kids: this.kids, layers: mergeLayers(this.sources, ownLayers) };
  }
}

/** How viewers show the file: its title, and pages that lie side by side from right to left where it is read so (ISO 32000-1, table 150). */
function setPreferences(catalog: PDFDict, leftwards: boolean, context: PDFContext): void {
  const known = catalog.lookup(PDFName.of('ViewerPreferences'));
  const preferences = known instanceof PDFDict ? known : PDFDict.withContext(context);
  catalog.set(PDFName.of('ViewerPreferences'), preferences);
  preferences.set(PDFName.of('DisplayDocTitle'), context.obj(true));
  if (leftwards) preferences.set(PDFName.of('Direction'), PDFName.of('R2L'));
  else preferences.delete(PDFName.of('Direction'));
}
