import { jsonOf } from '$lib/server/body';
import { orderOutput } from '$lib/server/outputs';
import { answer } from '$lib/server/problem';
import { enqueue } from '$lib/server/queue';

export const POST = ({ params, request }) =>
  answer(async () => {
    const id = await orderOutput(params.id, await jsonOf(request));
    enqueue('output', id);
    return { id };
  });
