import { troubleFrom } from '../words/troubles';
import { JsonError, parseJson } from '../core/docket/json';
import { MOST_JSON_BYTES } from '../core/docket/limits';
import { checkSize } from './blobs';
import { Problem } from './problem';
import type { Coming } from './uploads';
import { isRecord } from '../core/unknown';

/**
 * The bytes of a request as they come. Throws Problem if the announced size is over the limit, or if fewer bytes came
 * than were announced: the connection was cut.
 */
async function* bodyOf(request: Request): AsyncGenerator<Uint8Array> {
  const declared = Number(request.headers.get('content-length') ?? NaN);
  if (declared > 0) checkSize(declared);
  let seen = 0;
  if (request.body)
    for await (const chunk of request.body) {
      seen += chunk.length;
      yield chunk;
    }
  if (declared >= 0 && seen !== declared) throw new Problem(400, { code: 'upload-cut-off' });
}

/** The file that a request brings: an upload that has ended, where the query names one (`upload`), else its body. */
export function fileOf(request: Request, url: URL): Coming {
  const upload = url.searchParams.get('upload');
  return upload === null ? { bytes: bodyOf(request) } : { upload };
}

/** The JSON of a request. Throws Problem. */
export async function jsonOf(request: Request): Promise<unknown> {
  const parts: Uint8Array[] = [];
  let size = Number(request.headers.get('content-length') ?? 0);
  if (size <= MOST_JSON_BYTES) {
    size = 0;
    for await (const part of request.body ?? []) {
      size += part.length;
      if (size > MOST_JSON_BYTES) break;
      parts.push(part);
    }
  }
  if (size > MOST_JSON_BYTES)
    throw new Problem(413, {
      code: 'json-too-large',
      data: { most: Math.floor(MOST_JSON_BYTES / (1 << 20)) },
    });
  return readJson(Buffer.concat(parts));
}

/** JSON from outside. Throws Problem. */
export function readJson(bytes: Uint8Array): unknown {
  try {
    return parseJson(bytes);
  } catch (error) {
    if (!(error instanceof JsonError)) throw error;
    throw new Problem(error.code === 'json-too-large' ? 413 : 400, troubleFrom(error));
  }
}

/** JSON of a request that is to be an object: its properties, none of which was looked at. Throws Problem. */
export async function objectOf(request: Request): Promise<Record<string, unknown>> {
  const value = await jsonOf(request);
  if (isRecord(value)) return value;
  throw new Problem(400, { code: 'not-json' });
}

/** JSON in a query. Throws Problem. */
export const jsonIn = (url: URL, name: string, otherwise: string): unknown =>
  readJson(Buffer.from(url.searchParams.get(name) || otherwise));
