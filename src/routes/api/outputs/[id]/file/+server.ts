import { blobStream } from '$lib/server/blobs';
import { outputFile } from '$lib/server/outputs';
import { answer } from '$lib/server/problem';

export const GET = async ({ params }) => {
  let response: Response | undefined;
  const problem = await answer(async () => {
    const { blobId, fileName, size } = await outputFile(params.id);
    response = new Response(blobStream(blobId), {
      headers: {
        'content-type': 'application/pdf',
        'content-length': String(size),
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
      },
    });
  });
  return response ?? problem;
};
