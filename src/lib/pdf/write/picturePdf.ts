import { createHash } from 'node:crypto';
import type { PackedImage } from '../../core/model/survey';
import { ByteOutput, fileHeader, ObjectTable } from '../objects/byteOutput';
import { figure } from '../objects/numbers';

/** A PDF with each image filling a page of its own, at its resolution. */
export async function writePicturePdf(images: readonly PackedImage[]): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  const out = new ByteOutput((chunk) => void chunks.push(chunk));
  const table = new ObjectTable(out);
  const write = (number: number, dictionary: string, stream?: string | Uint8Array): void => {
    table.begin(number);
    out.put(dictionary);
    if (stream !== undefined) {
      out.put('\nstream\n');
      out.put(stream);
      out.put('\nendstream');
    }
    table.end();
  };
  const page = (n: number) => 4 + 3 * n;
  const kids = images.map((_, n) => `${page(n)} 0 R`).join(' ');
  out.put(fileHeader('1.7'));
  write(1, '<< /Type /Catalog /Pages 2 0 R >>');
  write(2, `<< /Type /Pages /Count ${images.length} /Kids [${kids}] >>`);
  write(3, '<< /Producer (Folder) >>');
  images.forEach(({ width, height, ppi, turn, entries, bytes }, n) => {
    const [w, h] = [width, height].map((dots) => figure((dots * 72) / ppi));
    const content = `q ${w} 0 0 ${h} 0 0 cm /I Do Q`;
    const rotate = turn ? ` /Rotate ${turn}` : '';
    write(
      page(n),
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${w} ${h}]${rotate} /Contents ${page(n) + 1} 0 R /Resources << /XObject << /I ${page(n) + 2} 0 R >> >> >>`,
    );
    write(page(n) + 1, `<< /Length ${content.length} >>`, content);
    write(
      page(n) + 2,
      `<< /Type /XObject /Subtype /Image /Width ${width} /Height ${height} ${entries} /Length ${bytes.length} >>`,
      bytes,
    );
  });
  const id = createHash('md5');
  for (const { bytes } of images) id.update(bytes);
  table.finish('1 0 R', '3 0 R', id.digest('hex'));
  await out.drain(true);
  return Buffer.concat(chunks);
}
