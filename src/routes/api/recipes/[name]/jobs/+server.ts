import { jsonOf } from '$lib/server/body';
import { answer } from '$lib/server/problem';
import { replayOnJobs } from '$lib/server/replayOnJobs';

/** Replays a recipe on jobs: `{ jobs, values }`. */
export const POST = ({ params, request }) =>
  answer(async () => replayOnJobs(params.name, await jsonOf(request)));
