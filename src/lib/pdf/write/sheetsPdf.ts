import { placesApart } from './places';
import { applyToBox, invert } from '../../core/measure/matrix';
import { artsOf, laidOn } from '../../core/pages/page';
import type { InkChange } from '../../core/model/page';
import { labelRuns } from '../../core/pages/pageLabels';
import type { Surveys } from '../../core/model/survey';
import { countSides, eachSide, sidesOf, type SheetPlan } from '../../core/sheets/plan';
import { sheetSurface } from '../../core/sheets/sheetSurface';
import type { ArtItem } from '../../core/model/surface';
import { ByteOutput, fileHeader, ObjectTable, type Sink } from '../objects/byteOutput';
import { Kit, type FormUse } from './kit';
import { boxNumbers } from '../objects/numbers';
import { Numbered, PdfText, toSyntax, type Dictionary } from '../objects/objects';
import { RawSources } from './rawSources';
import { entryAt, firstOf } from '../../core/entries';

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
  /** Spot inks under other names. */
  inks?: readonly InkChange[] | undefined;
  /** The pages that the file has of those it could have, by their indexes from 0, in their order; all where missing. */
  only?: readonly number[] | undefined;
  onProgress?: (done: number, total: number) => void | Promise<void>;
}

/**
 * Writes the sheet PDF: one page per sheet side, front and back in turn. Source pages come as Form XObjects, each once,
 * their streams as they lie in the source, so inks and fonts stay as supplied and nothing is decoded that need not be.
 * Throws PdfError.
 */
export async function writeSheetsPdf(plan: SheetPlan, job: WriteContext): Promise<void> {
  const all = job.only && sidesOf(plan);
  const some = all && job.only?.map((n) => entryAt(all, n));
  const shows = some
    ? some.flatMap(({ drawn }) => drawn.cells)
    : [...plan.pages, ...(plan.cover?.plan.pages ?? [])];
  const uses = shows.flatMap(({ page }) =>
    page ? [...artsOf(page), ...laidOn(page)].map(({ source }) => source) : [],
  );
  const sources = await RawSources.open(uses, job.read, job.surveys, job.inks);
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
  /** The forms made of a source's pages by their index, plain ones and those that fade as a group. */
  const forms = new Map<string, { plain: number[]; group: number[] }>();
  /** The forms of pages with tiling patterns that are drawn elsewhere too, by their places. */
  const apart = placesApart<number>();
  const elsewhere = new Map<string, number>();
  let shown: string[] = [];
  const formOf = ({ source, index, laid, matrix }: ArtItem): FormUse => {
    const group = laid?.opacity !== undefined;
    const made = forms.get(source) ?? { plain: [], group: [] };
    forms.set(source, made);
    const those = group ? made.group : made.plain;
    const { toUpright, boxes } = entryAt(job.surveys[source]!.pages, index);
    const written = (ownPatterns: boolean) =>
      sources.writeForm(
        source,
        index,
        boxNumbers(applyToBox(invert(toUpright), boxes.media)),
        out,
        table,
        group,
        ownPatterns,
      );
    let form = (those[index] ??= written(false));
    const place = apart(form, matrix);
    if (place && sources.hasPatterns(source, index)) {
      const key = `${form} ${place}`;
      const own = elsewhere.get(key) ?? written(true);
      elsewhere.set(key, own);
      form = own;
    }
    const name = `P${shown.length + 1}`;
    shown.push(`/${name} ${form} 0 R`);
    return { name, toUpright };
  };
  const kit = new Kit<Numbered>(formOf, () => new Numbered(sources.newNumber()), job.inks);
  /** What the content of all sides needs besides its forms; written when all is drawn. */
  const shared = ['Font', 'ColorSpace', 'ExtGState', 'Properties'].map((key) => ({
    key,
    number: sources.newNumber(),
  }));
  const needs = shared.map(({ key, number }) => `/${key} ${number} 0 R`).join(' ');
  const { cover, sheetCount } = plan;
  const axisOf = (sheet: number) => (sheet > sheetCount && cover ? cover.plan.turnAxis : plan.turnAxis);
  const kids: number[] = [];
  const total = some?.length ?? countSides(plan);
  const labels: string[] = [];
  for (const { drawn, size, sheet, side } of some ?? eachSide(plan)) {
    labels.push(`${sheet} ${side}`);
    const surface = sheetSurface(drawn, size, plan.weight);
    shown = [];
    // Left unpacked: it is short, and packing costs more time than it saves bytes.
    const content = kit.draw(surface.items);
    const stream = write(`<< /Length ${content.length} >>`, undefined, content);
    const boxes = (['media', 'bleed', 'trim'] as const).map(
      (box) => `/${firstOf(box).toUpperCase()}${box.slice(1)}Box [${boxNumbers(surface[box]).join(' ')}]`,
    );
    kids.push(
      write(
        `<< /Type /Page /Parent ${tree} 0 R ${boxes.join(' ')} ${pieceInfo(side, axisOf(sheet), job.at)} /Resources << /XObject << ${shown.join(' ')} >> ${needs} >> /Contents ${stream} 0 R >>`,
      ),
    );
    await out.drain();
    await job.onProgress?.(kids.length, total);
  }
  write(
    `<< /Type /Pages /Count ${kids.length} /Kids [${kids.map((kid) => `${kid} 0 R`).join(' ')}] >>`,
    tree,
  );
  const { resources, layers, hidden } = kit.finish(
    (dictionary, stream) => new Numbered(write(toSyntax(dictionary), undefined, stream)),
    ({ number }, dictionary) => void write(toSyntax(dictionary), number),
  );
  for (const { key, number } of shared) write(toSyntax(resources[key] as Dictionary<Numbered>), number);
  const inherited = sources.catalogEntries(layers.map(toSyntax), hidden.map(toSyntax));
  await sources.writeWanted(out, table);
  const root = write(
    `<< /Type /Catalog /Pages ${tree} 0 R /PageLabels ${sideLabels(labels)} /ViewerPreferences << /DisplayDocTitle true /PrintScaling /None >> ${inherited} >>`,
  );
  const info = write(infoDict(job.title, job.at));
  table.finish(`${root} 0 R`, `${info} 0 R`, job.id);
  await out.drain(true);
}

/**
 * What a side says of itself (ISO 32000-1, 14.5, page-piece dictionary): whoever takes these sheets in again knows how their
 * backs lie.
 */
const pieceInfo = (side: 'front' | 'back', axis: SheetPlan['turnAxis'], at: Date): string =>
  `/PieceInfo << /Folder << /LastModified ${pdfDate(at)} /Private << /Side /${side} /Axis /${axis} >> >> >>`;

function sideLabels(labels: readonly string[]): string {
  return `<< /Nums [${labelRuns(labels)
    .map(({ from, prefix }) => `${from} << /P (${prefix}) >>`)
    .join(' ')}] >>`;
}

/** A time as PDF has it (7.9.4). */
const pdfDate = (at: Date): string => `(D:${at.toISOString().replace(/[-:T]|\.\d+Z$/g, '')}Z)`;

/** The info dictionary; text as UTF-16BE (7.9.2.2), times as PDF dates (7.9.4). */
function infoDict(title: string, at: Date): string {
  const date = pdfDate(at);
  return `<< /Title ${new PdfText(title).syntax} /Producer (Folder) /Creator (Folder) /CreationDate ${date} /ModDate ${date} >>`;
}
