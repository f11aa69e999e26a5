import { deflateSync } from 'node:zlib';
import { cmyk, degrees, PDFDocument, rgb } from '@cantoo/pdf-lib';
import { ByteOutput, fileHeader, ObjectTable } from '../objects/byteOutput';

/** Files as programs write them: with texts, colours and boxes that differ; objects by themselves, or packed into streams as PDF has them since 1.5. */
export async function sampleFiles(pages: number): Promise<Buffer[]> {
  const document = await PDFDocument.create();
  for (let n = 0; n < pages; n++) {
    const page = document.addPage([420, 595]);
    page.drawText(`${n} sample`, { x: 50, y: 300, color: cmyk(0, 0, 0, 1) });
    if (n % 8) continue;
    page.drawRectangle({ x: 20.5, y: 20.5, width: 100, height: 60, color: rgb(0.2, 0.4, 0.6) });
    page.setTrimBox(8.5, 8.5, 403, 578);
    page.setRotation(degrees(90));
  }
  // A file that is read is a Buffer too.
  const [plain, packed] = [await document.save({ useObjectStreams: false }), await document.save()];
  return [Buffer.from(plain), Buffer.from(packed)];
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
