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
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { Readable } from 'node:stream';
import { ownDatabase, server } from '../../../tests/database';
import { storeBlob } from './blobs';
import { db, transaction } from './db';
import { nearToFile, tidyNear } from './nearFiles';

describe.skipIf(!server)('files that lie near', () => {
  const folder = mkdtempSync(join(tmpdir(), 'folder-near-test-'));
  const near = join(folder, `folder-near-${hostname()}-${process.getuid!()}`);
  const whole = Buffer.alloc(5 << 20, 'larkmoor');
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
