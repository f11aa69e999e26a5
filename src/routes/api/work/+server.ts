import { jsonOf } from '$lib/server/body';
import { answer } from '$lib/server/problem';
import { listWork, tryAgain } from '$lib/server/work';

export const GET = () => answer(listWork);

/** Has work that failed tried again: `{ of, id }`. */
export const POST = ({ request }) =>
  answer(async () => {
    await tryAgain(await jsonOf(request));
    return listWork();
  });
