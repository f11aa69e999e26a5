import { pictureOf } from '$lib/server/pictures';
import { answer } from '$lib/server/problem';

/** A small picture of a source page (from 0). */
export const GET = async ({ params }) => {
  let png: Buffer | undefined;
  const problem = await answer(
    async () =>
      void (png = await pictureOf(params.sha, /^\d{1,6}$/.test(params.page) ? Number(params.page) : -1)),
  );
  return png
    ? new Response(new Uint8Array(png), {
        headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=31536000, immutable' },
      })
    : problem;
};
