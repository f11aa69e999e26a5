import {
  appendFileSync,
  chmodSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
} from 'node:fs';
import { createHash } from 'node:crypto';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { Readable } from 'node:stream';
import { ownDatabase, server } from '../../../tests/database';
import { storeBlob } from './blobs';
import { db, transaction } from './db';
import { ArrivingNear, nearToFile, partNear, tidyNear } from './nearFiles';

describe.skipIf(!server)('files that lie near', () => {
  const folder = mkdtempSync(join(tmpdir(), 'folder-near-test-'));
  const near = join(folder, `folder-near-${hostname()}-${process.getuid!()}`);
  const whole = Buffer.alloc(5 << 20, 'larkmoor');
  const sha256 = createHash('sha256').update(whole).digest('hex');
  let close: () => Promise<void>;
  let id = '';
  let count = 0;
  const fetched = async (): Promise<string> => {
    const path = join(folder, `file-${count++}`);
    await nearToFile(id, path);
    expect(readFileSync(path).equals(whole)).toBe(true);
    return path;
  };
  const asked = async (work: () => Promise<unknown>): Promise<number> => {
    const query = vi.spyOn(db(), 'query');
    await work();
    const of = query.mock.calls.filter(([text]) => String(text).includes('blob_chunk')).length;
    query.mockRestore();
    return of;
  };

  beforeAll(async () => {
    process.env.TMPDIR = folder;
    close = await ownDatabase('near');
    ({ id } = await transaction((client) => storeBlob(client, Readable.from([whole]))));
  });
  beforeEach(() => rmSync(near, { recursive: true, force: true }));
  afterAll(() => close());

  test('a second one is not fetched anew; all of it may be deleted at any time', async () => {
    expect(await asked(fetched)).toBe(5);
    expect(await asked(fetched)).toBe(0);
    rmSync(near, { recursive: true });
    expect(await asked(fetched)).toBe(5);
  });

  test('what was changed there is found out, and fetched anew', async () => {
    await fetched();
    const [name] = readdirSync(near);
    chmodSync(join(near, name!), 0o644);
    appendFileSync(join(near, name!), 'more');
    expect(await asked(fetched)).toBe(5);
    expect(await asked(fetched)).toBe(0);
  });

  test('a file that arrives is near at once, and fetched by nobody; one that breaks off, or is not what it is called, is not', async () => {
    for (const [end, reads] of [
      ['whole', 0],
      ['changed', 5],
      ['dropped', 5],
    ] as const) {
      rmSync(near, { recursive: true, force: true });
      const arriving = new ArrivingNear();
      arriving.add(whole.subarray(0, 2 << 20), 0);
      arriving.add(end === 'changed' ? Buffer.alloc(3 << 20) : whole.subarray(2 << 20), 2 << 20);
      await (end === 'dropped' ? arriving.drop() : arriving.keep(sha256));
      expect(readdirSync(near)).toEqual(end === 'dropped' ? [] : [sha256]);
      expect(await asked(fetched), end).toBe(reads);
    }
  });

  test('parts of one are had once it was checked, and again when it was changed', async () => {
    expect(await partNear(sha256, 0, 10)).toBeUndefined();
    await fetched();
    const part = whole.subarray(3_000_001, 3_200_000);
    await vi.waitFor(async () => expect(await partNear(sha256, 0, 10)).toBeDefined());
    expect(await partNear(sha256, 3_000_001, 3_200_000)).toEqual(new Uint8Array(part));
    const path = join(near, sha256);
    chmodSync(path, 0o644);
    // Touched only: it is checked, and still what it is called.
    utimesSync(path, new Date(), new Date());
    expect(await partNear(sha256, 0, 10)).toBeUndefined();
    await vi.waitFor(async () => expect(await partNear(sha256, 0, 10)).toBeDefined());
    appendFileSync(path, 'more');
    expect(await partNear(sha256, 0, 10)).toBeUndefined();
    await vi.waitFor(() => expect(readdirSync(near)).toEqual([]));
    expect(await partNear('../../etc/passwd', 0, 10)).toBeUndefined();
  });

  test('a directory that others may write in is not used', async () => {
    await fetched();
    chmodSync(near, 0o777);
    expect(await asked(fetched)).toBe(5);
  });

  test('what is too much goes, the longest unused first, and what nobody used for long', async () => {
    const path = await fetched();
    expect(statSync(path).mode & 0o222).toBe(0);
    await tidyNear(4 << 20);
    expect(readdirSync(near)).toEqual([]);
    await fetched();
    const kept = join(near, readdirSync(near)[0]!);
    await tidyNear();
    expect(readdirSync(near)).toHaveLength(1);
    utimesSync(kept, new Date(0), new Date(0));
    await tidyNear();
    expect(readdirSync(near)).toEqual([]);
  });
});
