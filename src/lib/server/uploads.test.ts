import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import { appendTo, dropAbandoned, readBlob } from './blobs';
import { db } from './db';
import { openIntakes, receive } from './intakes';
import { createJob } from './jobs';
import { answer } from './problem';
import { uploadResponse } from './uploads';

const TUS = { 'tus-resumable': '1.0.0' };
const ask = (method: string, path = '', headers: Record<string, string> = {}, body?: BodyInit) =>
  uploadResponse(
    new Request(`http://localhost/api/uploads${path}`, {
      method,
      headers: { ...TUS, ...headers },
      ...(body === undefined ? {} : { body, duplex: 'half' }),
    } as RequestInit),
  );
const begin = async (length: number): Promise<string> => {
  const made = await ask('POST', '', { 'upload-length': String(length) });
  expect(made.status).toBe(201);
  return made.headers.get('location')!.split('/').at(-1)!;
};
const PIECE = { 'content-type': 'application/offset+octet-stream' };
const send = (id: string, offset: number, body: BodyInit) =>
  ask('PATCH', `/${id}`, { ...PIECE, 'upload-offset': String(offset) }, body);
const sizeOf = async (id: string) => Number((await ask('HEAD', `/${id}`)).headers.get('upload-offset'));
/** A body that breaks off after these bytes were read: a stream that fails earlier would drop what nobody has read yet. */
const cutOff = (bytes: Uint8Array) => {
  let sent = false;
  return new ReadableStream<Uint8Array>({
    pull: (controller) => {
      if (sent) setTimeout(() => controller.error(new Error('the line went dead')), 20);
      else controller.enqueue(bytes);
      sent = true;
    },
  });
};
const wholeOf = async (sha256: string): Promise<Buffer> => {
  const { rows } = await db().query<{ id: string }>('select id from blob where sha256 = $1', [sha256]);
  const parts = [];
  for await (const part of readBlob(rows[0]!.id)) parts.push(part);
  return Buffer.concat(parts);
};
const count = async (table: string) => (await db().query(`select from ${table}`)).rowCount;

describe.skipIf(!server)('uploads', () => {
  let close: () => Promise<void>;
  beforeAll(async () => void (close = await ownDatabase('uploads')));
  afterAll(() => close());
  beforeEach(() => db().query('truncate job, source, blob, run cascade'));

  test('one that is cut twice goes on from where it was, and arrives whole, once', async () => {
    const bytes = randomBytes(5_300_001);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const id = await begin(bytes.length);
    await send(id, 0, cutOff(bytes.subarray(0, 1_700_000))).catch(() => undefined);
    const first = 1_700_000;
    await expect.poll(() => sizeOf(id)).toBe(first);
    await send(id, first, cutOff(bytes.subarray(first, first + 999_999))).catch(() => undefined);
    const second = first + 999_999;
    await expect.poll(() => sizeOf(id)).toBe(second);
    // What comes late of an earlier try, or is sent twice, is added no second time.
    expect((await send(id, first, bytes.subarray(first, second))).status).toBe(409);
    const job = await createJob();
    await expect(receive(job, 'a.pdf', { at: 'end' }, { upload: id })).rejects.toMatchObject({ status: 409 });
    expect((await send(id, second, bytes.subarray(second))).status).toBe(204);
    const taken = await Promise.all(
      [1, 2, 3].map(() => receive(job, 'a.pdf', { at: 'end' }, { upload: id })),
    );
    expect(taken).toEqual([
      { id, sha256 },
      { id, sha256 },
      { id, sha256 },
    ]);
    expect((await wholeOf(sha256)).equals(bytes)).toBe(true);
    expect(await openIntakes(job)).toHaveLength(1);
    expect([await count('blob'), await count('intake')]).toEqual([1, 1]);
  });

  test('one that came this way whole is not read again to be hashed; one of which a part came otherwise is', async () => {
    for (const [otherwise, reads] of [
      [false, 0],
      [true, 3],
    ] as const) {
      const bytes = randomBytes(3 << 20);
      const [cut, end] = [1 << 20, 2 << 20];
      const id = await begin(bytes.length);
      await send(id, 0, bytes.subarray(0, cut));
      const { rows } = await db().query<{ blob_id: string }>('select blob_id from upload where id = $1', [
        id,
      ]);
      // As another web server does.
      if (otherwise) await appendTo(rows[0]!.blob_id, cut, bytes.subarray(cut, end));
      else await send(id, cut, bytes.subarray(cut, end));
      await send(id, end, bytes.subarray(end));
      const job = await createJob();
      const query = vi.spyOn(db(), 'query');
      const taken = await receive(job, 'a', { at: 'end' }, { upload: id });
      const read = query.mock.calls.filter(([text]) => String(text).includes('from blob_chunk')).length;
      query.mockRestore();
      expect([read, taken.sha256]).toEqual([reads, createHash('sha256').update(bytes).digest('hex')]);
    }
  });

  test('the same bytes are kept once, by whichever way they come; an empty file is one too', async () => {
    const job = await createJob();
    const bytes = Buffer.from('larkmoor');
    for (let n = 0; n < 2; n++) {
      const id = await begin(bytes.length);
      await send(id, 0, bytes);
      await receive(job, 'a', { at: 'end' }, { upload: id });
    }
    const parts = (async function* () {
      yield bytes;
    })();
    await receive(job, 'a', { at: 'end' }, { bytes: parts });
    await expect.poll(() => count('blob')).toBe(1);
    expect(await count('intake')).toBe(3);
    expect(await receive(job, 'none', { at: 'end' }, { upload: await begin(0) })).toMatchObject({
      sha256: createHash('sha256').digest('hex'),
    });
  });

  test('what is too large, unknown or given up leaves nothing', async () => {
    expect((await ask('POST', '', { 'upload-length': String(2 ** 31) })).status).toBe(413);
    expect((await ask('HEAD', `/${randomUUID()}`)).status).toBe(404);
    expect((await ask('HEAD', '/..%2f..%2fetc')).status).toBe(404);
    await expect(receive(await createJob(), 'a', { at: 'end' }, { upload: 'x' })).rejects.toMatchObject({
      status: 404,
    });
    const [given, left] = [await begin(9), await begin(9)];
    await send(left, 0, 'four');
    expect((await ask('DELETE', `/${given}`)).status).toBe(204);
    await dropAbandoned();
    expect(await sizeOf(left)).toBe(4);
    await db().query("update blob set touched_at = now() - interval '25 hours'");
    await dropAbandoned();
    expect([await count('blob'), await count('upload')]).toEqual([0, 0]);
  });

  test('a foreign page is let read nothing of it', async () => {
    const made = await ask('POST', '', { 'upload-length': '4', origin: 'http://evil.example' });
    expect(made.headers.get('access-control-allow-origin')).toBeNull();
  });

  test('thirty that stand still hold no connection: others are answered meanwhile', async () => {
    const stands = Array.from({ length: 30 }, async () => {
      const id = await begin(1 << 20);
      const never = new ReadableStream<Uint8Array>({
        start: (controller) => controller.enqueue(Buffer.alloc(1000)),
      });
      void send(id, 0, never).catch(() => undefined);
      const job = await createJob();
      const bytes = (async function* () {
        yield Buffer.alloc(1000);
        await new Promise(() => undefined);
      })();
      void answer(() => receive(job, 'x', { at: 'end' }, { bytes }));
    });
    await Promise.all(stands);
    const held = () => db().totalCount - db().idleCount + db().waitingCount;
    await expect.poll(held).toBe(0);
    expect(await count('job')).toBe(30);
  });
});
