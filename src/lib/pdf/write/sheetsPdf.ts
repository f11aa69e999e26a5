import { isSameBox } from '../../core/measure/box';
import type { ReadWords } from '../../core/model/readWord';
import { remembering } from '../../core/remembering';
import { artsOf, laidOn } from '../../core/pages/page';
import type { InkChange } from '../../core/model/page';
import { labelRuns } from '../../core/pages/pageLabels';
import type { Surveys } from '../../core/model/survey';
import { countSides, eachSide, sidesOf, type PrintedSide, type SheetPlan } from '../../core/sheets/plan';
import { sheetSurface } from '../../core/sheets/sheetSurface';
import type { Surface } from '../../core/model/surface';
import { ByteOutput, fileHeader, ObjectTable, type Sink } from '../objects/byteOutput';
import { Kit } from './kit';
import { SheetForms } from './sheetForms';
import { boxNumbers } from '../objects/numbers';
import { Numbered, PdfText, toSyntax } from '../objects/objects';
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
  /** The pages that the file has of those it could have, by their indexes from 0, in their order; all if missing. */
  only?: readonly number[] | undefined;
  /** Words that were read on scans, to be laid over them unseen. */
  words?: ReadWords | undefined;
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
  const cells = some
    ? some.flatMap(({ drawn }) => drawn.cells)
    : [...plan.pages, ...(plan.cover?.plan.pages ?? [])];
  const uses = new Set<string>();
  for (const { page } of cells) {
    if (!page) continue;
    for (const { source } of artsOf(page)) uses.add(source);
    for (const { source } of laidOn(page)) uses.add(source);
  }
  const sources = await RawSources.open(uses, job.read, job.surveys, job.inks);
  const writer = new SheetWriter(plan, sources, job);
  const total = some?.length ?? countSides(plan);
  for (const side of some ?? eachSide(plan)) {
    writer.side(side);
    await writer.out.drain();
    await job.onProgress?.(writer.count, total);
  }
  await writer.finish();
}

const BOXES = ['media', 'bleed', 'trim'] as const;
/** The entries of a side's boxes. Most sides have those of the one before them. */
const boxesOf = remembering<Pick<Surface, (typeof BOXES)[number]>, string>(
  (one, other) => BOXES.every((box) => isSameBox(one[box], other[box])),
  (surface) =>
    BOXES.map(
      (box) => `/${firstOf(box).toUpperCase()}${box.slice(1)}Box [${boxNumbers(surface[box]).join(' ')}]`,
    ).join(' '),
);

/** Writes the objects of a sheet PDF one after another, as they come. */
class SheetWriter {
  readonly out: ByteOutput;
  private readonly table: ObjectTable;
  private readonly tree: number;
  private readonly forms: SheetForms;
  private readonly kit: Kit<Numbered>;
  /** What the content of all sides needs besides its forms; written when all is drawn. */
  private readonly shared: readonly { key: string; number: number }[];
  private readonly needs: string;
  private readonly kids: number[] = [];
  private readonly labels: string[] = [];
  private readonly date: string;

  constructor(
    private readonly plan: SheetPlan,
    private readonly sources: RawSources,
    private readonly job: WriteContext,
  ) {
    this.date = pdfDate(job.at);
    this.out = new ByteOutput(job.sink);
    this.table = new ObjectTable(this.out);
    this.out.put(fileHeader(sources.version));
    this.tree = sources.newNumber();
    this.forms = new SheetForms(sources, job.surveys, this.out, this.table);
    this.kit = new Kit<Numbered>(
      (item) => this.forms.use(item),
      () => new Numbered(sources.newNumber()),
      job.inks,
    );
    this.shared = ['Font', 'ColorSpace', 'ExtGState', 'Properties'].map((key) => ({
      key,
      number: sources.newNumber(),
    }));
    this.needs = this.shared.map(({ key, number }) => `/${key} ${number} 0 R`).join(' ');
  }

  /** How many sides were written. */
  get count(): number {
    return this.kids.length;
  }

  side({ drawn, size, sheet, side }: PrintedSide): void {
    const { plan } = this;
    this.labels.push(`${sheet} ${side}`);
    const surface = sheetSurface(drawn, size, plan.weight);
    const { media, bleed, trim } = surface;
    this.forms.begin();
    // Left unpacked: it is short, and packing costs more time than it saves bytes.
    const content = this.kit.draw(surface.items);
    const stream = this.write(`<< /Length ${content.length} >>`, undefined, content);
    const axis = sheet > plan.sheetCount && plan.cover ? plan.cover.plan.turnAxis : plan.turnAxis;
    this.kids.push(
      this.write(
        `<< /Type /Page /Parent ${this.tree} 0 R ${boxesOf({ media, bleed, trim })} ${pieceInfo(side, axis, this.date)} /Resources << /XObject << ${this.forms.shown} >> ${this.needs} >> /Contents ${stream} 0 R >>`,
      ),
    );
  }

  /** Writes what all sides need, and the end of the file. */
  async finish(): Promise<void> {
    const { kids, tree, sources, out, table, job } = this;
    this.write(
      `<< /Type /Pages /Count ${kids.length} /Kids [${kids.map((kid) => `${kid} 0 R`).join(' ')}] >>`,
      tree,
    );
    const { resources, layers, hidden } = this.kit.finish(
      (dictionary, stream) => new Numbered(this.write(toSyntax(dictionary), undefined, stream)),
      ({ number }, dictionary) => void this.write(toSyntax(dictionary), number),
    );
    for (const { key, number } of this.shared) this.write(toSyntax(resources[key] ?? {}), number);
    const inherited = sources.catalogEntries(layers.map(toSyntax), hidden.map(toSyntax));
    await sources.writeWanted(out, table);
    const root = this.write(
      `<< /Type /Catalog /Pages ${tree} 0 R /PageLabels ${sideLabels(this.labels)} /ViewerPreferences << /DisplayDocTitle true /PrintScaling /None >> ${inherited} >>`,
    );
    const info = this.write(infoDict(job.title, this.date));
    table.finish(`${root} 0 R`, `${info} 0 R`, job.id);
    await out.drain(true);
  }

  /** Writes an object, or a stream with its dictionary. Returns its number. */
  private write(text: string, number = this.sources.newNumber(), stream?: string | Uint8Array): number {
    const { out, table } = this;
    table.begin(number);
    out.put(text);
    if (stream !== undefined) out.putData(stream);
    table.end();
    return number;
  }
}

/**
 * What a side says of itself (ISO 32000-1, 14.5, page-piece dictionary): whoever takes these sheets in again knows how their
 * backs lie.
 */
const pieceInfo = (side: 'front' | 'back', axis: SheetPlan['turnAxis'], date: string): string =>
  `/PieceInfo << /Folder << /LastModified ${date} /Private << /Side /${side} /Axis /${axis} >> >> >>`;

function sideLabels(labels: readonly string[]): string {
  return `<< /Nums [${labelRuns(labels)
    .map(({ from, prefix }) => `${from} << /P (${prefix}) >>`)
    .join(' ')}] >>`;
}

/** A time as PDF has it (7.9.4). */
const pdfDate = (at: Date): string => `(D:${at.toISOString().replace(/[-:T]|\.\d+Z$/g, '')}Z)`;

/** The info dictionary; text as UTF-16BE (7.9.2.2), times as PDF dates (7.9.4). */
function infoDict(title: string, date: string): string {
  return `<< /Title ${new PdfText(title).syntax} /Producer (Folder) /Creator (Folder) /CreationDate ${date} /ModDate ${date} >>`;
}
