import { createHash } from 'node:crypto';
import type { PackedImage } from '../../core/model/survey';
import { ByteOutput, fileHeader, ObjectTable } from '../objects/byteOutput';
import { figure } from '../objects/numbers';

/** What the colours of an image are without a profile, by how many there are (ISO 32000-1, 8.6.4). */
const PLAIN = { 1: '/DeviceGray', 3: '/DeviceRGB', 4: '/DeviceCMYK' } as const;

/** A PDF with each image filling a page of its own, at its resolution. */
export async function writePicturePdf(images: readonly PackedImage[]): Promise<Uint8Array> {
  const chunks: Uint8Array[] = [];
  const out = new ByteOutput((chunk) => void chunks.push(chunk));
  const table = new ObjectTable(out);
  const write = (number: number, dictionary: string, stream?: string | Uint8Array): void => {
    table.begin(number);
    out.put(dictionary);
    if (stream !== undefined) {
      out.putData(stream);
    }
    table.end();
  };
  const page = (n: number) => 4 + 3 * n;
  const profiles = new Map<string, number>();
  const spaceOf = ({ components, profile }: PackedImage): string => {
    if (!profile) return PLAIN[components];
    const key = createHash('md5').update(profile).digest('hex');
    const known = profiles.get(key);
    const number = known ?? page(images.length) + profiles.size;
    profiles.set(key, number);
    if (known === undefined)
      write(
        number,
        `<< /N ${components} /Alternate ${PLAIN[components]} /Length ${profile.length} >>`,
        profile,
      );
    return `[/ICCBased ${number} 0 R]`;
  };
  const kids = images.map((_, n) => `${page(n)} 0 R`).join(' ');
  out.put(fileHeader('1.7'));
  write(1, '<< /Type /Catalog /Pages 2 0 R >>');
  write(2, `<< /Type /Pages /Count ${images.length} /Kids [${kids}] >>`);
  write(3, '<< /Producer (Folder) >>');
  images.forEach((image, n) => {
    const { width, height, ppi, turn, entries, bytes } = image;
    const space = spaceOf(image);
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
      `<< /Type /XObject /Subtype /Image /Width ${width} /Height ${height} /ColorSpace ${space} ${entries} /Length ${bytes.length} >>`,
      bytes,
    );
  });
  const id = createHash('md5');
  for (const { bytes } of images) id.update(bytes);
  table.finish('1 0 R', '3 0 R', id.digest('hex'));
  await out.drain(true);
  return Buffer.concat(chunks);
}
