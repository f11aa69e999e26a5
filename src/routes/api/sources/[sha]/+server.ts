import { blobStream } from '$lib/server/blobs';
import { partNear } from '$lib/server/nearFiles';
import { partOf } from '$lib/server/parts';
import { blobOfSource, surveysOf } from '$lib/server/sources';

/** The bytes of a source: as PDF, which is made of a picture; with `as=supplied` as they came. */
export const GET = async ({ params, url, request }) => {
  const as = url.searchParams.get('as') === 'supplied' ? 'supplied' : 'pdf';
  const blob = await blobOfSource(params.sha, as);
  if (!blob) return Response.json({ trouble: { code: 'no-such-source' } }, { status: 404 });
  const picture = as === 'supplied' && (await surveysOf([params.sha]))[params.sha]?.picture;
  const kind = picture && picture.kind.toLowerCase();
  const part = partOf(request.headers.get('range'), blob.size);
  if (part === 'none')
    return new Response(null, { status: 416, headers: { 'content-range': `bytes */${blob.size}` } });
  const near = part && (await partNear(blob.sha256, part.from, part.to));
  return new Response(near ?? blobStream(blob.id, part), {
    status: part ? 206 : 200,
    headers: {
      'accept-ranges': 'bytes',
      ...(part ? { 'content-range': `bytes ${part.from}-${part.to - 1}/${blob.size}` } : {}),
      'content-type': kind ? `image/${kind === 'svg' ? 'svg+xml' : kind}` : 'application/pdf',
      // A drawing from outside is looked at, never run.
      ...(kind === 'svg' ? { 'content-security-policy': "sandbox; default-src 'none'" } : {}),
      'x-content-type-options': 'nosniff',
      'content-length': String(part ? part.to - part.from : blob.size),
      // Browsers put parts together on the disk, which takes longer than fetching them again.
      'cache-control': part ? 'no-store' : 'private, max-age=31536000, immutable',
    },
  });
};
