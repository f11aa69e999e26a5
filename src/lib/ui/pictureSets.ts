import { downloadZip } from 'client-zip';
import { inScanOrder, isPictureName, nameOfSet } from '../core/pages/pictureSet';

/** Files as they are sent: pictures that come together are one set, packed in the order in which they were scanned; all else stays by itself. */
export async function inSets(files: readonly File[]): Promise<File[]> {
  const pictures = inScanOrder(
    files.filter(({ name }) => isPictureName(name)),
    ({ name }) => name,
  );
  const others = files.filter(({ name }) => !isPictureName(name));
  if (pictures.length < 2) return [...files];
  const names = pictures.map(({ name }) => name);
  // Two of one name, from two directories, would be one in a ZIP.
  const entries = pictures.map((file, n) => ({
    name: names.indexOf(file.name) === n ? file.name : `${n + 1} ${file.name}`,
    lastModified: new Date(1980, 0, 1),
    input: file,
  }));
  const blob = await downloadZip(entries).blob();
  return [...others, new File([blob], `${nameOfSet(names)}.zip`, { type: 'application/zip' })];
}
