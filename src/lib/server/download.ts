import { downloadZip } from 'client-zip';
import { blobStream, readBlob } from './blobs';
import { outputFiles } from './outputs';
import { Problem } from './problem';
import { lastOf } from '../core/entries';

const TYPES: Record<string, string> = {
  pdf: 'application/pdf',
  png: 'image/png',
  svg: 'image/svg+xml',
  csv: 'text/csv; charset=utf-8',
  json: 'application/json',
};
const typeOf = (name: string): string => TYPES[lastOf(name.split('.'))] ?? 'application/octet-stream';

/** A finished output as a download, streamed: one file as it is, several as an archive (ZIP), or the one counted from 0 that is asked for. Throws Problem 404. */
export async function outputResponse(id: string, n?: number): Promise<Response> {
  const { archive, files } = await outputFiles(id);
  const one = n === undefined ? (files.length === 1 ? files[0] : undefined) : files[n];
  if (n !== undefined && !one) throw new Problem(404, { code: 'no-such-output' });
  if (one)
    return new Response(blobStream(one.blobId), {
      headers: {
        'content-type': typeOf(one.name),
        'content-length': String(one.size),
        ...asFile(one.name),
      },
    });
  // What is in it is packed already: an archive only holds it together.
  const zip = downloadZip(
    files.map(({ blobId, name, size, at }) => ({ name, size, lastModified: at, input: readBlob(blobId) })),
  );
  return new Response(zip.body, { headers: { 'content-type': 'application/zip', ...asFile(archive) } });
}

/** Headers that have a browser keep an answer as a file. */
export const asFile = (name: string) => ({
  'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
});
