import { cmyk, degrees, PDFDocument, rgb } from '@cantoo/pdf-lib';

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
