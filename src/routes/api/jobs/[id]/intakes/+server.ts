import { bodyOf } from '$lib/server/body';
import { receive } from '$lib/server/intakes';
import { answer } from '$lib/server/problem';
import { enqueue } from '$lib/server/queue';

/** Takes a file in: the body is its bytes. A connection that breaks leaves nothing behind. */
export const POST = ({ params, request, url }) =>
  answer(async () => {
    const name = url.searchParams.get('name') ?? 'file.pdf';
    const place = JSON.parse(url.searchParams.get('place') ?? '{"at":"end"}') as unknown;
    const received = await receive(params.id, name, place, bodyOf(request));
    await enqueue('survey', received.id);
    return received;
  });
