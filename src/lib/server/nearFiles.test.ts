import {
  appendFileSync,
  chmodSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
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
  /** What lies there, without what says as what it was checked. */
  const files = () => readdirSync(near).filter((name) => !name.endsWith('.checked'));
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
    chmodSync(join(near, sha256), 0o644);
    appendFileSync(join(near, sha256), 'more');
    expect(await asked(fetched)).toBe(5);
    expect(await asked(fetched)).toBe(0);
  });

  test('a file that arrives is near at once, and fetched and checked by nobody; one that breaks off is not', async () => {
    for (const [end, reads] of [
      ['whole', 0],
      ['dropped', 5],
    ] as const) {
      rmSync(near, { recursive: true, force: true });
      const arriving = new ArrivingNear();
      arriving.add(whole.subarray(0, 2 << 20), 0);
      arriving.add(whole.subarray(2 << 20), 2 << 20);
      if (end === 'dropped') await arriving.drop();
      else expect(await arriving.keep()).toBe(sha256);
      expect(files()).toEqual(end === 'dropped' ? [] : [sha256]);
      expect((await partNear(sha256, 0, 10)) !== undefined).toBe(end === 'whole');
      expect(await asked(fetched), end).toBe(reads);
    }
  });

  test.each([
    ['as it is, by another process: nobody checks it again', (is: string) => is, true],
    ['when it had another length', (is: string) => is.replace(/\d+$/, '7'), false],
    ['when it had another age', (is: string) => is.replace(/\S+ (\d+)$/, '7 $1'), false],
    ['before the machine started anew', (is: string) => is.replace(/^\S+/, 'another'), false],
  ])('a file that is not what it is called, and is said to have been checked %s', async (_, said, used) => {
    // Nothing of this process knows this file yet.
    const name = createHash('sha256').update(String(said)).digest('hex');
    await fetched();
    await fetched();
    const is = readFileSync(join(near, `${sha256}.checked`), 'utf8');
    const other = join(near, name);
    writeFileSync(other, 'not what it is called');
    const { ino, mtimeMs, size } = statSync(other);
    writeFileSync(`${other}.checked`, said(`${is.split(' ')[0]} ${ino} ${mtimeMs} ${size}`));
    expect(await partNear(name, 0, 3)).toBeUndefined();
    if (used) await expect.poll(() => partNear(name, 0, 3)).toBeDefined();
    else await expect.poll(() => files()).toEqual([sha256]);
  });

  test('parts of one are had once it was checked, and again when it was changed', async () => {
    expect(await partNear(sha256, 0, 10)).toBeUndefined();
    await fetched();
    const part = whole.subarray(3_000_001, 3_200_000);
    await expect.poll(() => partNear(sha256, 0, 10)).toBeDefined();
    expect(await partNear(sha256, 3_000_001, 3_200_000)).toEqual(new Uint8Array(part));
    const path = join(near, sha256);
    chmodSync(path, 0o644);
    // Touched only: it is checked, and still what it is called.
    utimesSync(path, new Date(), new Date());
    expect(await partNear(sha256, 0, 10)).toBeUndefined();
    await expect.poll(() => partNear(sha256, 0, 10)).toBeDefined();
    appendFileSync(path, 'more');
    expect(await partNear(sha256, 0, 10)).toBeUndefined();
    await expect.poll(() => files()).toEqual([]);
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
    await fetched();
    await tidyNear();
    expect(readdirSync(near).sort()).toEqual([sha256, `${sha256}.checked`]);
    utimesSync(join(near, sha256), new Date(0), new Date(0));
    await tidyNear();
    expect(readdirSync(near)).toEqual([]);
  });
});
