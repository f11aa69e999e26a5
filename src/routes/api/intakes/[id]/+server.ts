import { jsonOf } from '$lib/server/body';
import { dismissIntake, openWithPassword } from '$lib/server/intakes';
import { answer } from '$lib/server/problem';
import { enqueue } from '$lib/server/queue';

export const DELETE = ({ params }) => answer(() => dismissIntake(params.id));

/** Opens a file that needs one with a password: `{ password }`. */
export const POST = ({ params, request }) =>
  answer(async () => {
    await openWithPassword(params.id, await jsonOf(request));
    enqueue('survey', params.id);
  });
