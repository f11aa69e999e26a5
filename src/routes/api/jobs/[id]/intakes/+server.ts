import { receive } from '$lib/server/intakes';
import { answer, Problem } from '$lib/server/problem';
import { enqueue } from '$lib/server/queue';

/** Takes a file in: the body is its bytes. A connection that breaks leaves nothing behind. */
export const POST = ({ params, request, url }) =>
  answer(async () => {
    const name = url.searchParams.get('name') ?? 'file.pdf';
    const place = JSON.parse(url.searchParams.get('place') ?? '{"at":"end"}') as unknown;
    const bytes = (request.body ??
      new ReadableStream({ start: (c) => c.close() })) as unknown as AsyncIterable<Uint8Array>;
    const declared = Number(request.headers.get('content-length') ?? NaN);
    const received = await receive(params.id, name, place, whole(bytes, declared));
    await enqueue('survey', received.id);
    return received;
  });

/** The bytes as they come; throws when fewer came than were announced. */
async function* whole(bytes: AsyncIterable<Uint8Array>, declared: number): AsyncGenerator<Uint8Array> {
  let seen = 0;
  for await (const chunk of bytes) {
    seen += chunk.length;
    yield chunk;
  }
  if (declared >= 0 && seen !== declared) throw new Problem(400, { code: 'upload-cut-off' });
}
