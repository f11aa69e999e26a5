import { jsonOf } from '$lib/server/body';
import { orderCleanCopy } from '$lib/server/intakes';
import { answer } from '$lib/server/problem';
import { enqueue } from '$lib/server/queue';

/** Has a clean copy made of a file of scans: `{ source, cleaning }`. */
export const POST = ({ params, request }) =>
  answer(async () => {
    const ordered = await orderCleanCopy(params.id, await jsonOf(request));
    enqueue('survey', ordered.id);
    return ordered;
  });
