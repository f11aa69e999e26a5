import { fileOf, jsonIn } from '$lib/server/body';
import { receive } from '$lib/server/intakes';
import { answer } from '$lib/server/problem';
import { enqueue } from '$lib/server/queue';

/** Takes a file in: the one that was uploaded, or the body. A connection that breaks leaves nothing behind. */
export const POST = ({ params, request, url }) =>
  answer(async () => {
    const name = url.searchParams.get('name') ?? 'file.pdf';
    const place = jsonIn(url, 'place', '{"at":"end"}');
    const received = await receive(params.id, name, place, fileOf(request, url));
    enqueue('survey', received.id);
    return received;
  });
