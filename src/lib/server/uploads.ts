import { DataStore, ERRORS, Server, Upload, type Locker } from '@tus/server';
import { createHash, randomUUID, type Hash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { setImmediate } from 'node:timers/promises';
import { MOST_FILE_MB } from '../core/docket/limits';
import { appendTo, arrived, openBlob, receiveBlob, type Arrived } from './blobs';
import { db, idFrom } from './db';
import { ArrivingNear } from './nearFiles';
import { Problem } from './problem';
import { troubleOf } from './trouble';

/** Bytes that are on their way: those of a request, or those of an upload that has ended, by its id. */
export interface Coming {
  bytes?: AsyncIterable<Uint8Array>;
  upload?: string;
}

/** Receives the bytes of a request, or what an upload brought. Nothing holds a connection to the database meanwhile. Throws Problem. */
export async function arrivedFile({ bytes, upload }: Coming): Promise<Arrived> {
  if (bytes) return receiveBlob(bytes);
  const { rows } = await db().query<{ blob_id: string; size: string; length: string }>(
    `select u.blob_id, b.size, u.length from upload u join blob b on b.id = u.blob_id where u.id = $1 and b.sha256 is null`,
    [idFrom(upload ?? '')],
  );
  if (!rows[0]) throw new Problem(404, { code: 'no-such-upload' });
  if (rows[0].size !== rows[0].length) throw new Problem(409, { code: 'upload-cut-off' });
  return (await hashed.takeWhole(rows[0].blob_id, Number(rows[0].size))) ?? arrived(rows[0].blob_id);
}

/**
 * The same, or what an upload became when it was taken in before: also by the same request that was delivered twice, and was
 * quicker. Throws Problem.
 */
export async function arrivedOnce<Taken>(
  coming: Coming,
  taken: (upload: string) => Promise<Taken | undefined>,
): Promise<{ file: Arrived } | { taken: Taken }> {
  const known = async () => (coming.upload ? taken(coming.upload) : undefined);
  const before = await known();
  if (before) return { taken: before };
  try {
    return { file: await arrivedFile(coming) };
  } catch (error) {
    const meanwhile = await known();
    if (meanwhile) return { taken: meanwhile };
    throw error;
  }
}

/** Files are hashed while they arrive; so many at once. */
const MOST_HASHED = 100;
interface Followed {
  /** Of large files, those hash them that write them near, too. */
  by: Hash | ArrivingNear;
  at: number;
}
const dropNear = ({ by }: Followed): void => {
  if (by instanceof ArrivingNear) void by.drop();
};
/**
 * The SHA-256 of files as far as they came through this process without a gap. What came otherwise, through another web server,
 * or before a restart, is read once more instead.
 */
class Hashed {
  private readonly known = new Map<string, Followed>();

  /** Bytes are in the database at an offset of a file, which is to have so many in the end. */
  follow(blob: string, offset: number, bytes: Uint8Array, length: number): void {
    const known = this.known.get(blob);
    this.known.delete(blob);
    if ((known?.at ?? 0) !== offset) {
      if (known) dropNear(known);
      return;
    }
    const by = known?.by ?? (ArrivingNear.takes(length) ? new ArrivingNear() : createHash('sha256'));
    if (by instanceof ArrivingNear) by.add(bytes, offset);
    else by.update(bytes);
    this.known.set(blob, { by, at: offset + bytes.length });
    const [oldest] = this.known;
    if (this.known.size > MOST_HASHED && oldest) this.forget(oldest[0]);
  }

  /** A file that does not arrive any more. */
  forget(blob: string): void {
    const known = this.known.get(blob);
    this.known.delete(blob);
    if (known) dropNear(known);
  }

  /** A file of so many bytes, if all of them came this way; it is known no more then. */
  async takeWhole(blob: string, size: number): Promise<Arrived | undefined> {
    const known = this.known.get(blob);
    if (known?.at !== size) {
      this.forget(blob);
      return undefined;
    }
    this.known.delete(blob);
    const { by } = known;
    return { id: blob, sha256: by instanceof ArrivingNear ? await by.keep() : by.digest('hex'), size };
  }
}
const hashed = new Hashed();

/** Bytes gathered before they are written: a chunk is one row. */
const CHUNK_BYTES = 1 << 20;
/** What is read of a request that has failed already; browsers send uploads in pieces no larger than this. */
const DRAINED_BYTES = 32 << 20;

/**
 * Where uploads lie: in the database, so that they go on after a cut, a restart, or through another web server. Each chunk is
 * written by itself, and only where the upload ends at the offset that the client said.
 */
class DatabaseStore extends DataStore {
  override extensions = ['creation', 'creation-with-upload', 'termination'];

  override async create(upload: Upload): Promise<Upload> {
    await db().query('insert into upload (id, blob_id, length) values ($1, $2, $3)', [
      upload.id,
      await openBlob(),
      upload.size,
    ]);
    return upload;
  }

  override async getUpload(id: string): Promise<Upload> {
    const { rows } = await db().query<{ length: string; size: string }>(
      'select u.length, b.size from upload u join blob b on b.id = u.blob_id where u.id = $1',
      [idFrom(id)],
    );
    if (!rows[0]) throw ERRORS.FILE_NOT_FOUND;
    return new Upload({ id, size: Number(rows[0].length), offset: Number(rows[0].size) });
  }

  override async write(stream: Readable, id: string, offset: number): Promise<number> {
    const { rows } = await db().query<{ blob_id: string; length: string }>(
      'select blob_id, length from upload where id = $1',
      [id],
    );
    if (!rows[0]) throw ERRORS.FILE_NOT_FOUND;
    const { blob_id: blob, length: whole } = rows[0];
    let waiting: Uint8Array[] = [];
    let length = 0;
    let [failed, cut]: unknown[] = [];
    /** One chunk is being written while the next one comes, and the one before is hashed. */
    let [writing, following] = [Promise.resolve(), Promise.resolve()];
    const append = async (bytes: Uint8Array): Promise<void> => {
      const size = await appendTo(blob, offset, bytes, offset + bytes.length < Number(whole));
      if (size === undefined) throw ERRORS.INVALID_OFFSET;
      const from = offset;
      offset = size;
      // Once the next chunk is on its way to the database, which works at it meanwhile.
      following = following
        .then(() => setImmediate())
        .then(() => hashed.follow(blob, from, bytes, Number(whole)))
        .catch((error) => void (failed ??= error));
    };
    const flush = async (): Promise<void> => {
      await writing;
      if (!length || failed) return;
      const bytes = Buffer.concat(waiting);
      [waiting, length] = [[], 0];
      writing = append(bytes).catch((error) => void (failed ??= error));
    };
    let drained = 0;
    try {
      for await (const part of stream) {
        if (failed) {
          // A browser hears an answer only when it was let finish what it sends.
          if ((drained += part.length) > DRAINED_BYTES) break;
          continue;
        }
        for (let at = 0; at < part.length; at += CHUNK_BYTES) {
          const piece = part.subarray(at, at + CHUNK_BYTES);
          if (length + piece.length > CHUNK_BYTES) await flush();
          waiting.push(piece);
          length += piece.length;
        }
      }
    } catch (error) {
      cut = error;
    }
    // What came before the line was cut is kept: the client goes on from there.
    await flush();
    await writing;
    await following;
    failed ??= cut;
    if (failed) throw failed;
    return offset;
  }

  override async remove(id: string): Promise<void> {
    const { rows } = await db().query<{ id: string }>(
      'delete from blob where sha256 is null and id = (select blob_id from upload where id = $1) returning id',
      [idFrom(id)],
    );
    if (rows[0]) hashed.forget(rows[0].id);
  }
}

/** No two writes at one offset both succeed, so there is nothing to be locked: see `appendTo`. */
const noLocks: Locker = {
  newLock: () => ({ lock: () => Promise.resolve(), unlock: () => Promise.resolve() }),
};

let started: Server | undefined;

/** Answers requests of the resumable upload protocol (tus 1.0.0) below /api/uploads. */
export function uploadResponse(request: Request): Promise<Response> {
  started ??= new Server({
    path: '/api/uploads',
    datastore: new DatabaseStore(),
    maxSize: MOST_FILE_MB * 1024 * 1024,
    relativeLocation: true,
    namingFunction: () => randomUUID(),
    allowedOrigins: [],
    locker: noLocks,
    onResponseError: (_, error) => {
      if (!(error instanceof Error)) return undefined;
      const trouble = troubleOf(error);
      if (!trouble) return undefined;
      return { status_code: trouble.code === 'disk-full' ? 507 : 503, body: JSON.stringify({ trouble }) };
    },
  });
  return started.handleWeb(request);
}
