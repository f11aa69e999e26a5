import { applyToBox, compose, invert } from '../core/measure/matrix';
import { artsOf } from '../core/pages/page';
import { labelRuns } from '../core/pages/pageLabels';
import type { Surveys } from '../core/pages/survey';
import type { SheetPlan } from '../core/sheets/plan';
import { sheetSurface } from '../core/surface/sheetSurface';
import type { ArtItem, LineItem, Surface } from '../core/surface/surface';
import { ByteOutput, fileHeader, ObjectTable, type Sink } from './byteOutput';
import { boxNumbers, clipTo, concat, figure } from './numbers';
import type { Embedded } from './fonts';
import { embedInFile, showText, type Numbered } from './textItems';
import { RawSources } from './raw/rawSources';

/** Fetches a source's bytes by its SHA-256. */
export type ReadSource = (source: string) => Promise<Uint8Array>;

/** What every output writer needs besides its plan. */
export interface WriteContext {
  surveys: Surveys;
  read: ReadSource;
  sink: Sink;
  title: string;
  /** 32 hex digits for the file identifier (ISO 32000-1, 14.4). */
  id: string;
  at: Date;
  onProgress?: (done: number, total: number) => void | Promise<void>;
}

/**
 * Writes the sheet PDF: one page per sheet side, front and back in turn. Source pages come as Form XObjects, each once,
 * their streams as they lie in the source, so inks and fonts stay as supplied and nothing is decoded that need not be.
 * Throws PdfError.
 */
export async function writeSheetsPdf(plan: SheetPlan, job: WriteContext): Promise<void> {
  const uses = plan.pages.flatMap(({ page }) => (page ? artsOf(page).map(({ source }) => source) : []));
  const sources = await RawSources.open(uses, job.read, job.surveys);
  const out = new ByteOutput(job.sink);
  const table = new ObjectTable(out);
  const write = (text: string, number = sources.newNumber(), stream?: string | Uint8Array): number => {
    table.begin(number);
    out.put(text);
    if (stream !== undefined) {
      out.put('\nstream\n');
      out.put(stream);
      out.put('\nendstream');
    }
    table.end();
    return number;
  };
  out.put(fileHeader(sources.version));
  const tree = sources.newNumber();
  const allInk = write(REGISTRATION_INK);
  const words = [...new Set(plan.pages.flatMap(({ page }) => page?.words ?? []))];
  const face = words.length
    ? embedInFile(words, (dictionary, stream) => write(dictionary, undefined, stream))
    : undefined;
  const fonts = face ? ` /Font << /T ${face.ref.number} 0 R >>` : '';
  const forms = new Map<string, number>();
  const formOf = ({ source, index }: ArtItem): number => {
    const key = `${source}:${index}`;
    const { toUpright, boxes } = job.surveys[source]!.pages[index]!;
    const form =
      forms.get(key) ??
      sources.writeForm(source, index, boxNumbers(applyToBox(invert(toUpright), boxes.media)), out, table);
    forms.set(key, form);
    return form;
  };
  const kids: number[] = [];
  const sides = plan.sheets.flatMap(({ front, back }) => [front, back]);
  for (const side of sides) {
    const surface = sheetSurface(side, plan.sheet);
    const { content, xObjects } = drawSide(surface, job.surveys, formOf, face);
    const stream = write(`<< /Length ${content.length} >>`, undefined, content);
    const boxes = (['media', 'bleed', 'trim'] as const).map(
      (box) => `/${box[0]!.toUpperCase()}${box.slice(1)}Box [${boxNumbers(surface[box]).join(' ')}]`,
    );
    kids.push(
      write(
        `<< /Type /Page /Parent ${tree} 0 R ${boxes.join(' ')} /Resources << /XObject << ${xObjects} >> /ColorSpace << /All ${allInk} 0 R >>${fonts} >> /Contents ${stream} 0 R >>`,
      ),
    );
    await out.drain();
    await job.onProgress?.(kids.length, sides.length);
  }
  write(
    `<< /Type /Pages /Count ${kids.length} /Kids [${kids.map((kid) => `${kid} 0 R`).join(' ')}] >>`,
    tree,
  );
  const inherited = sources.catalogEntries();
  await sources.writeWanted(out, table);
  const root = write(
    `<< /Type /Catalog /Pages ${tree} 0 R /PageLabels ${sideLabels(kids.length)} /ViewerPreferences << /DisplayDocTitle true /PrintScaling /None >> ${inherited} >>`,
  );
  const info = write(infoDict(job.title, job.at));
  table.finish(`${root} 0 R`, `${info} 0 R`, job.id);
  await out.drain(true);
}

/** The content of a sheet side and the forms that it names. Left unpacked: it is short, and packing costs more time than it saves bytes. */
function drawSide(
  surface: Surface,
  surveys: Surveys,
  formOf: (item: ArtItem) => number,
  face: Embedded<Numbered> | undefined,
): { content: string; xObjects: string } {
  const xObjects: string[] = [];
  const lines = surface.items.map((item) => {
    if (item.kind === 'line') return drawLine(item);
    if (item.kind === 'text') return face ? showText(item, face) : '';
    const name = `/P${xObjects.length + 1}`;
    xObjects.push(`${name} ${formOf(item)} 0 R`);
    const matrix = compose(surveys[item.source]!.pages[item.index]!.toUpright, item.matrix);
    return `q ${clipTo(item.clip)} ${concat(matrix)} ${name} Do Q`;
  });
  return { content: lines.join('\n'), xObjects: xObjects.join(' ') };
}

/** Lines drawn before: marks are the same on every side. */
const drawn = new WeakMap<LineItem, string>();
function drawLine(line: LineItem): string {
  const known = drawn.get(line) ?? lineOperators(line);
  drawn.set(line, known);
  return known;
}

const lineOperators = ({ x0, y0, x1, y1, width, dash }: LineItem): string =>
  `q /All CS 1 SCN ${figure(width)} w [${dash.map(figure).join(' ')}] 0 d ${figure(x0)} ${figure(y0)} m ${figure(x1)} ${figure(y1)} l S Q`;

/** The colorant All: prints on every plate (ISO 32000-1, 8.6.6.4). */
const REGISTRATION_INK =
  '[/Separation /All /DeviceCMYK << /FunctionType 2 /Domain [0 1] /C0 [0 0 0 0] /C1 [1 1 1 1] /N 1 >>]';

function sideLabels(count: number): string {
  const labels = Array.from(
    { length: count },
    (_, i) => `${Math.floor(i / 2) + 1} ${i % 2 ? 'back' : 'front'}`,
  );
  return `<< /Nums [${labelRuns(labels)
    .map(({ from, prefix }) => `${from} << /P (${prefix}) >>`)
    .join(' ')}] >>`;
}

/** The info dictionary; text as UTF-16BE (7.9.2.2), times as PDF dates (7.9.4). */
function infoDict(title: string, at: Date): string {
  const text = (value: string) => `<FEFF${Buffer.from(value, 'utf16le').swap16().toString('hex')}>`;
  const date = `(D:${at.toISOString().replace(/[-:T]|\.\d+Z$/g, '')}Z)`;
  return `<< /Title ${text(title)} /Producer (Folder) /Creator (Folder) /CreationDate ${date} /ModDate ${date} >>`;
}
