import { deflateSync } from 'node:zlib';
import { cmyk, degrees, PDFDocument, PDFName, PDFString, rgb, type PDFPage } from '@cantoo/pdf-lib';
import { ByteOutput, fileHeader, ObjectTable } from '../objects/byteOutput';

/**
 * Files as programs write them: with texts, colours, boxes that differ, and links and bookmarks to places with names; objects by
 * themselves, or packed into streams as PDF has them since 1.5.
 */
export async function sampleFiles(pages: number): Promise<Buffer[]> {
  const document = await PDFDocument.create();
  for (let n = 0; n < pages; n++) {
    const page = document.addPage([420, 595]);
    linkTo(page, n, pages);
    page.drawText(`${n} sample`, { x: 50, y: 300, color: cmyk(0, 0, 0, 1) });
    if (n % 8) continue;
    page.drawRectangle({ x: 20.5, y: 20.5, width: 100, height: 60, color: rgb(0.2, 0.4, 0.6) });
    page.setTrimBox(8.5, 8.5, 403, 578);
    page.setRotation(degrees(90));
  }
  nameAll(document);
  // A file that is read is a Buffer too.
  const [plain, packed] = [await document.save({ useObjectStreams: false }), await document.save()];
  return [Buffer.from(plain), Buffer.from(packed)];
}

/** Puts links on a page, to places on others by their names. */
function linkTo(page: PDFPage, n: number, pages: number): void {
  const { context } = page.doc;
  for (let link = 0; link < LINKS; link++)
    page.node.addAnnot(
      context.register(
        context.obj({
          Type: 'Annot',
          Subtype: 'Link',
          Border: [0, 0, 1],
          Rect: [50, 20 * link, 400.5, 20 * link + 12.25],
          A: { S: 'GoTo', D: PDFString.of(placeName((n + link) % pages)) },
        }),
      ),
    );
}
const LINKS = 8;
/** Names stand in a name tree in order. */
const placeName = (n: number): string => `page.${String(n).padStart(5, '0')}`;

/** Gives every page a place with a name (ISO 32000-1, 7.9.6), and a bookmark that leads to it (12.3.3). */
function nameAll(document: PDFDocument): void {
  const { context, catalog } = document;
  const places = document
    .getPages()
    .map(({ ref }) => context.register(context.obj([ref, 'XYZ', 0, 595, null])));
  const root = context.nextRef();
  const marks = places.map(() => context.nextRef());
  places.forEach((_, n) => {
    const [before, after] = [marks[n - 1], marks[n + 1]];
    context.assign(
      marks[n]!,
      context.obj({
        Title: PDFString.of(`Place ${n}`),
        Parent: root,
        A: { S: 'GoTo', D: PDFString.of(placeName(n)) },
        ...(before ? { Prev: before } : {}),
        ...(after ? { Next: after } : {}),
      }),
    );
  });
  context.assign(root, context.obj({ First: marks[0]!, Last: marks.at(-1)!, Count: marks.length }));
  catalog.set(PDFName.of('Outlines'), root);
  const names = places.flatMap((place, n) => [PDFString.of(placeName(n)), place]);
  catalog.set(PDFName.of('Names'), context.obj({ Dests: { Names: names } }));
}

/** A plain PDF of so many pages, each with resources and a content stream of so many bytes of its own. */
export async function sampleFile({ pages, bytes }: { pages: number; bytes: number }): Promise<Uint8Array> {
  // Stored, not made smaller, so that it has the length asked for.
  const content = deflateSync('BT /F1 9 Tf (sample) Tj ET'.padEnd(bytes), { level: 0 });
  const chunks: Uint8Array[] = [];
  const out = new ByteOutput((chunk) => void chunks.push(chunk));
  const table = new ObjectTable(out);
  const write = (number: number, text: string) => {
    table.begin(number);
    out.put(text);
    table.end();
  };
  out.put(fileHeader('1.7'));
  write(1, '<< /Type /Catalog /Pages 2 0 R >>');
  write(
    2,
    `<< /Type /Pages /Count ${pages} /Kids [${Array.from({ length: pages }, (_, i) => `${4 + 2 * i} 0 R`).join(' ')}] >>`,
  );
  write(3, '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>');
  for (let i = 0; i < pages; i++) {
    write(
      4 + 2 * i,
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 420 595] /Resources << /Font << /F1 3 0 R >> /ExtGState << >> >> /Contents ${5 + 2 * i} 0 R /Annots [ ] >>`,
    );
    write(
      5 + 2 * i,
      `<< /Filter /FlateDecode /Length ${content.length} >>\nstream\n${content.toString('latin1')}\nendstream`,
    );
  }
  table.finish('1 0 R', '3 0 R', '0'.repeat(32));
  await out.drain(true);
  return Buffer.concat(chunks);
}
