import { createHash } from 'node:crypto';
import { constants } from 'node:fs';
import { open } from 'node:fs/promises';
import type { PoolClient } from 'pg';
import { db, onceCommitted, type Db } from './db';
import { Latest } from './latest';
import { MOST_FILE_MB } from '../core/docket/limits';
import { Problem } from './problem';
import { firstOf } from '../core/entries';

const CHUNK_BYTES = 1 << 20;
/** A file whose bytes are here, but which is no blob that anything may refer to until it is sealed. */
export interface Arrived {
  id: string;
  sha256: string;
  size: number;
}

/** Begins a file whose bytes come from outside, in their own time; nobody sees it until it is sealed. Returns its id. */
export async function openBlob(): Promise<string> {
  return firstOf((await db().query<{ id: string }>('insert into blob default values returning id')).rows).id;
}

/**
 * Adds bytes (at most a chunk) at the end of a file that is arriving, in a transaction of their own: no connection is held
 * while more are waited for. Where `more` are to come, nobody waits until these are on the disk: the last ones do, for all before
 * them, and after a crash whoever sends goes on from what is there. Returns the file's new size; undefined if it did not end at
 * `offset`, and then nothing is added.
 */
export async function appendTo(
  id: string,
  offset: number,
  bytes: Uint8Array,
  more = false,
): Promise<number | undefined> {
  const { rows } = await db().query<{ size: string }>(
    `with grown as (
       update blob set size = size + $3, chunks = chunks + 1, touched_at = now()
       where id = $1 and sha256 is null and size = $2 returning id, size, chunks),
     added as (insert into blob_chunk (blob_id, n, bytes) select id, chunks - 1, $4 from grown)
     select size, set_config('synchronous_commit', $5, true) from grown`,
    [id, offset, bytes.length, bytes, more ? 'off' : 'on'],
  );
  return rows[0] && Number(rows[0].size);
}

/** Stores bytes as they come from outside; what breaks off leaves nothing. The result is to be sealed. Throws Problem `too-large`. */
export async function receiveBlob(bytes: AsyncIterable<Uint8Array>): Promise<Arrived> {
  const hash = createHash('sha256');
  const id = await openBlob();
  let [size, n] = [0, 0];
  const writing: Promise<unknown>[] = [];
  try {
    for await (const chunk of inChunks(bytes)) {
      checkSize(size + chunk.length);
      size += chunk.length;
      hash.update(chunk);
      await writing[n % AT_ONCE];
      const written = writeChunk(id, n, chunk);
      written.catch(() => undefined);
      writing[n++ % AT_ONCE] = written;
    }
    await Promise.all(writing);
  } catch (error) {
    await Promise.allSettled(writing);
    await dropArriving(id).catch(() => undefined);
    throw error;
  }
  return { id, sha256: hash.digest('hex'), size };
}

/** So many chunks of a file are written at once, each through a connection of its own: one of them keeps one core busy. */
const AT_ONCE = 2;

/** Writes a chunk of a file that is sealed later, by whoever writes all of it: sealing waits until all are on the disk. */
const writeChunk = (id: string, n: number, bytes: Uint8Array): Promise<unknown> =>
  db().query(
    `with added as (insert into blob_chunk (blob_id, n, bytes) values ($1, $2, $3))
     select set_config('synchronous_commit', 'off', true)`,
    [id, n, bytes],
  );

/** What a file is that has arrived whole, read once more. */
export async function arrived(id: string): Promise<Arrived> {
  return { id, ...(await hashOf(readBlob(id))) };
}

/** What bytes are called here, and how many they are. */
export async function hashOf(bytes: AsyncIterable<Uint8Array>): Promise<Omit<Arrived, 'id'>> {
  const hash = createHash('sha256');
  let size = 0;
  for await (const chunk of bytes) {
    hash.update(chunk);
    size += chunk.length;
  }
  return { sha256: hash.digest('hex'), size };
}

/** Deletes a file that is arriving. */
export async function dropArriving(id: string): Promise<void> {
  await db().query('delete from blob where id = $1 and sha256 is null', [id]);
}

/** Hours after which a file that stopped arriving is deleted. */
const ARRIVING_HOURS = 24;
export async function dropAbandoned(): Promise<void> {
  await db().query(
    'delete from blob where sha256 is null and touched_at < now() - make_interval(hours => $1)',
    [ARRIVING_HOURS],
  );
  await db().query(
    'delete from upload where created_at < now() - make_interval(hours => $1) and (select sha256 from blob where id = blob_id) is not null',
    [ARRIVING_HOURS],
  );
}

/** Throws Problem `too-large`. */
export function checkSize(bytes: number): void {
  if (bytes > MOST_FILE_MB * 1024 * 1024)
    throw new Problem(413, { code: 'too-large', data: { most: MOST_FILE_MB } });
}

/**
 * Makes a file that has arrived a blob, in the transaction that first refers to it. Where a file with the same bytes is
 * there already, that one's id is returned, and the new one is deleted soon, which nobody waits for.
 */
export async function sealBlob(client: PoolClient, arrived: Arrived): Promise<Arrived> {
  const sealed = await seal(client, arrived);
  if (sealed.id !== arrived.id)
    onceCommitted(client, () => void dropArriving(arrived.id).catch(() => undefined));
  return sealed;
}

async function seal(client: PoolClient, { id, sha256, size }: Arrived): Promise<Arrived> {
  // Two uploads of one file at once: the later waits here until the earlier has ended, then finds it.
  await client.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [sha256]);
  const known = await client.query<{ id: string }>('select id from blob where sha256 = $1 for key share', [
    sha256,
  ]);
  // Sealed before already, too, where one upload is taken in twice.
  if (known.rows[0]) return { id: known.rows[0].id, sha256, size };
  await client.query('update blob set sha256 = $2, size = $3 where id = $1', [id, sha256, size]);
  return { id, sha256, size };
}

/**
 * Stores the bytes of a file of this machine, in chunks, within the caller's transaction, and returns the blob's id. A file
 * that is there already is stored no second time. Throws Problem `too-large`. What comes from outside is received instead.
 */
export async function storeBlob(client: PoolClient, bytes: AsyncIterable<Uint8Array>): Promise<Arrived> {
  const hash = createHash('sha256');
  let id: string | undefined;
  let [size, n] = [0, 0];
  for await (const chunk of inChunks(bytes)) {
    size += chunk.length;
    checkSize(size);
    hash.update(chunk);
    id = await addChunk(client, id, n++, chunk);
  }
  // An empty file has no chunk.
  id ??= firstOf(
    (await client.query<{ id: string }>('insert into blob default values returning id')).rows,
  ).id;
  const sealed = await seal(client, { id, sha256: hash.digest('hex'), size });
  if (sealed.id !== id) await client.query('delete from blob where id = $1', [id]);
  return sealed;
}

/** Adds a chunk to a blob, or to a new one; returns the blob's id. */
async function addChunk(
  client: PoolClient,
  id: string | undefined,
  n: number,
  chunk: Uint8Array,
): Promise<string> {
  const { rows } = id
    ? await client.query<{ id: string }>(
        'insert into blob_chunk (blob_id, n, bytes) values ($1, $2, $3) returning blob_id as id',
        [id, n, chunk],
      )
    : await client.query<{ id: string }>(
        `with made as (insert into blob default values returning id)
         insert into blob_chunk (blob_id, n, bytes) select id, $1, $2 from made returning blob_id as id`,
        [n, chunk],
      );
  return firstOf(rows).id;
}

/**
 * The bytes of a file that lies on the disk, in pieces no larger than what is left of it: buffers of one large size, for
 * many small files in a row, keep the collector busy all the time. Links are not followed.
 */
export async function* fileBytes(path: string): AsyncGenerator<Buffer> {
  const file = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW);
  try {
    for (let left = (await file.stat()).size; left > 0;) {
      const { buffer, bytesRead } = await file.read(Buffer.allocUnsafe(Math.min(left, CHUNK_BYTES)));
      if (!bytesRead) return;
      left -= bytesRead;
      yield buffer.subarray(0, bytesRead);
    }
  } finally {
    await file.close();
  }
}

/** The bytes of a blob, chunk by chunk, from one moment in time. */
export async function* readBlob(id: string, client: Db = db()): AsyncGenerator<Uint8Array> {
  for (let [n, left] = [0, 1]; left > 0; n++) {
    const { rows } = await client.query<{ bytes: Buffer; size: string }>(
      'select c.bytes, b.size from blob_chunk c join blob b on b.id = c.blob_id where c.blob_id = $1 and c.n = $2',
      [id, n],
    );
    if (!rows[0]) return;
    yield rows[0].bytes;
    left = (n ? left : Number(rows[0].size)) - rows[0].bytes.length;
  }
}

/** Where the chunks of blobs that were read in parts end, by their ids: what is sealed never changes. */
const ends = new Latest<readonly number[]>(200);
async function endsOf(id: string): Promise<readonly number[]> {
  const known = ends.get(id);
  if (known) return known;
  const { rows } = await db().query<{ ends: string }>(
    'select sum(octet_length(bytes)) over (order by n) as ends from blob_chunk where blob_id = $1 order by n',
    [id],
  );
  const found = rows.map((row) => Number(row.ends));
  ends.set(id, found);
  return found;
}

/** Bytes of a sealed blob from one offset up to and without another, in pieces no larger than a chunk. */
export async function* readPart(id: string, from: number, to: number): AsyncGenerator<Uint8Array> {
  const all = await endsOf(id);
  for (const [n, end] of all.entries()) {
    const begin = n ? all[n - 1]! : 0;
    if (end <= from || begin >= to) continue;
    const at = Math.max(from, begin);
    const { rows } = await db().query<{ bytes: Buffer }>(
      'select substring(bytes from $3 for $4) as bytes from blob_chunk where blob_id = $1 and n = $2',
      [id, n, at - begin + 1, Math.min(to, end) - at],
    );
    if (!rows[0]) return;
    yield rows[0].bytes;
  }
}

/** Copies a blob to a file. */
export async function blobToFile(id: string, path: string): Promise<void> {
  const file = await open(path, 'w');
  try {
    for await (const chunk of readBlob(id)) await file.write(chunk);
  } finally {
    await file.close();
  }
}

/** The web's view of a blob, or of its bytes from one offset up to another: a stream that reads on only as fast as it is taken. */
export function blobStream(id: string, part?: { from: number; to: number }): ReadableStream<Uint8Array> {
  const chunks = part ? readPart(id, part.from, part.to) : readBlob(id);
  return new ReadableStream({
    async pull(controller) {
      const { value, done } = await chunks.next();
      if (done) controller.close();
      else controller.enqueue(value);
    },
  });
}

/** Deletes sources that no job uses, and blobs that nothing refers to. Waits for nobody: what is locked is left for the next time. */
export async function sweep(client: Db): Promise<void> {
  await client.query(
    `delete from source where sha256 in (
       select s.sha256 from source s
       where not exists (select from job_source j where j.sha256 = s.sha256)
         and not exists (select from own_stamp o where o.sha256 = s.sha256)
         and not exists (select from recipe_source r where r.sha256 = s.sha256)
         and not exists (select from run r join blob b on b.id = r.blob_id where b.sha256 = s.sha256)
       for update skip locked)`,
  );
  await client.query(
    `delete from blob where id in (
       select b.id from blob b
       where b.sha256 is not null
         and not exists (select from source s where b.id in (s.blob_id, s.pdf_blob_id))
         and not exists (select from intake i where i.blob_id = b.id)
         and not exists (select from output_file o where o.blob_id = b.id)
         and not exists (select from run r where r.blob_id = b.id)
       for update skip locked)`,
  );
}

async function* inChunks(bytes: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let waiting: Uint8Array[] = [];
  let length = 0;
  for await (const part of bytes) {
    waiting.push(part);
    length += part.length;
    if (length < CHUNK_BYTES) continue;
    const whole =
      waiting.length > 1 ? Buffer.concat(waiting) : Buffer.from(part.buffer, part.byteOffset, length);
    let at = 0;
    for (; at + CHUNK_BYTES <= whole.length; at += CHUNK_BYTES) yield whole.subarray(at, at + CHUNK_BYTES);
    waiting = [whole.subarray(at)];
    length = whole.length - at;
  }
  if (length) yield Buffer.concat(waiting);
}
