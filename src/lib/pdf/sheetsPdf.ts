import { PDFDocument, PDFName, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import { compose } from '../core/measure/matrix';
import type { Surveys } from '../core/pages/survey';
import type { SheetPlan } from '../core/sheets/plan';
import { sheetSurface } from '../core/surface/sheetSurface';
import type { ArtItem, LineItem, Surface } from '../core/surface/surface';
import { pageAsForm } from './formXObject';
import { writeLabels } from './labels';
import { boxNumbers, clipTo, concat, figure } from './numbers';
import { mergeLayers, openSources, writeInfo, type ReadSource } from './sources';
import { writePdf, type Sink } from './writePdf';

/** What every output writer needs besides its plan. */
export interface WriteContext {
  surveys: Surveys;
  read: ReadSource;
  sink: Sink;
  title: string;
  /** 32 hex digits for the file identifier. */
  id: string;
  at: Date;
  onProgress?: (done: number, total: number) => void | Promise<void>;
}

/**
 * Writes the sheet PDF: one page per sheet side, front and back in turn. Source pages come as Form XObjects, each once,
 * with their streams still compressed, so inks and fonts stay as supplied. Throws PdfError.
 */
export async function writeSheetsPdf(plan: SheetPlan, job: WriteContext): Promise<void> {
  const uses = plan.pages.flatMap(({ page }) => (page?.art ? [page.art.source] : []));
  const sources = await openSources(uses, job.read, job.surveys, () => PDFDocument.create({ updateMetadata: false }));
  const { context } = sources;
  const layers = mergeLayers(sources);
  const pagesRef = context.nextRef();
  const allInk = registrationInk(context);
  const forms = new Map<string, PDFRef>();
  const formOf = ({ source, index }: ArtItem): PDFRef => {
    const key = `${source}:${index}`;
    const form = forms.get(key) ?? pageAsForm(sources.byId.get(source)!, index, job.surveys[source]!.pages[index]!, context);
    forms.set(key, form);
    return form;
  };
  const kids: PDFRef[] = [];
  const surfaces = plan.sheets.flatMap(({ front, back }) => [front, back]);
  for (const side of surfaces) {
    kids.push(sheetPage(sheetSurface(side, plan.sheet), pagesRef, allInk, formOf, job.surveys, context));
    await job.onProgress?.(kids.length, surfaces.length);
  }
  context.assign(pagesRef, context.obj({ Type: 'Pages', Count: kids.length, Kids: kids }));
  const labels = kids.map((_, i) => `${Math.floor(i / 2) + 1} ${i % 2 ? 'back' : 'front'}`);
  const root = context.register(
    context.obj({
      Type: 'Catalog',
      Pages: pagesRef,
      PageLabels: writeLabels(labels, context),
      ViewerPreferences: { DisplayDocTitle: true, PrintScaling: 'None' },
      ...(layers ? { OCProperties: layers } : {}),
      ...(sources.base.catalog.get(PDFName.of('OutputIntents')) ? { OutputIntents: sources.base.catalog.get(PDFName.of('OutputIntents'))! } : {}),
    }),
  );
  await writePdf({ context, root, info: writeInfo(context, job.title, job.at), id: job.id, version: sources.version }, job.sink);
}

function sheetPage(surface: Surface, parent: PDFRef, allInk: PDFRef, formOf: (item: ArtItem) => PDFRef, surveys: Surveys, context: PDFContext): PDFRef {
  const xObjects: Record<string, PDFRef> = {};
  const lines: string[] = [];
  for (const item of surface.items) {
    if (item.kind === 'line') {
      lines.push(drawLine(item));
      continue;
    }
    const name = `P${Object.keys(xObjects).length + 1}`;
    xObjects[name] = formOf(item);
    const matrix = compose(surveys[item.source]!.pages[item.index]!.toUpright, item.matrix);
    lines.push(`q ${clipTo(item.clip)} ${concat(matrix)} /${name} Do Q`);
  }
  // Short, and there are many of them: packing them would cost more time than it saves bytes.
  const contents = context.register(context.stream(lines.join('\n')));
  return context.register(
    context.obj({
      Type: 'Page',
      Parent: parent,
      MediaBox: boxNumbers(surface.media),
      BleedBox: boxNumbers(surface.bleed),
      TrimBox: boxNumbers(surface.trim),
      Resources: { XObject: xObjects, ColorSpace: { All: allInk } },
      Contents: contents,
    }),
  );
}

const drawLine = ({ x0, y0, x1, y1, width, dash }: LineItem): string =>
  `q /All CS 1 SCN ${figure(width)} w [${dash.map(figure).join(' ')}] 0 d ${figure(x0)} ${figure(y0)} m ${figure(x1)} ${figure(y1)} l S Q`;

/** The colorant All: prints on every plate (ISO 32000-1, 8.6.6.4). */
const registrationInk = (context: PDFContext): PDFRef =>
  context.register(
    context.obj(['Separation', 'All', 'DeviceCMYK', { FunctionType: 2, Domain: [0, 1], C0: [0, 0, 0, 0], C1: [1, 1, 1, 1], N: 1 }].map((value) => (typeof value === 'string' ? PDFName.of(value) : value)) as never),
  );
