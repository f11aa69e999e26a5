import { Problem } from './problem';

/** The bytes of a request as they come. Throws Problem when fewer came than were announced: the connection was cut. */
export async function* bodyOf(request: Request): AsyncGenerator<Uint8Array> {
  const declared = Number(request.headers.get('content-length') ?? NaN);
  let seen = 0;
  if (request.body)
    for await (const chunk of request.body as unknown as AsyncIterable<Uint8Array>) {
      seen += chunk.length;
      yield chunk;
    }
  if (declared >= 0 && seen !== declared) throw new Problem(400, { code: 'upload-cut-off' });
}
