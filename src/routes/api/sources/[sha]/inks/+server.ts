import { inkView } from '$lib/server/inkViews';
import { answer } from '$lib/server/problem';

/** A copy of a source for viewing, without the inks in `hide`. */
export const GET = async ({ params, url }) => {
  let pdf: Buffer | undefined;
  const problem = await answer(
    async () => void (pdf = await inkView(params.sha, url.searchParams.get('hide') ?? '[]')),
  );
  return pdf
    ? new Response(new Uint8Array(pdf), {
        headers: { 'content-type': 'application/pdf', 'cache-control': 'private, max-age=86400' },
      })
    : problem;
};
