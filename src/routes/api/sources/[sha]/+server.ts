import { blobStream } from '$lib/server/blobs';
import { blobOfSource } from '$lib/server/sources';

/** The bytes of a source, as they came. */
export const GET = async ({ params }) => {
  const blob = await blobOfSource(params.sha);
  if (!blob) return Response.json({ trouble: { code: 'no-such-source' } }, { status: 404 });
  return new Response(blobStream(blob.id), {
    headers: {
      'content-type': 'application/pdf',
      'content-length': String(blob.size),
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
};
