import { downloadZip } from 'client-zip';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { promisify } from 'node:util';
import yauzl from 'yauzl';
import * as z from 'zod';
import { KEPT } from '../core/docket/kept';
import { filesOf } from '../core/docket/docket';
import { MOST_FILE_MB, MOST_JSON_BYTES } from '../core/docket/limits';
import { safeName } from '../core/handover/names';
import { readJson } from './body';
import { blobToFile, dropArriving, readBlob, receiveBlob, sealBlob } from './blobs';
import { db } from './db';
import { asFile } from './download';
import { actor } from './actor';
import { createJob, docketFrom, readJob } from './jobs';
import { keep, listKept } from './kept';
import { keepOwnSize, listOwnSizes } from './ownSizes';
import { Problem } from './problem';
import { enqueue } from './queue';
import { arrivedFile, type Coming } from './uploads';
import { inWorkFolder } from './workFolder';
import { firstOf, foundIn, keysOf } from '../core/entries';
import { isRecord } from '../core/unknown';

/**
 * A job as one ZIP, so that it can be put away and opened elsewhere: `folder-job.json` says what it is (`version` 1, `title`,
 * and of each source its `name` and `sha256`), `docket.json` is the docket, `kept.json` holds papers, folds and sizes that
 * were kept under names, and `sources/` the files as they were supplied, each named by its SHA-256.
 */
const VERSION = 1;
const [ABOUT, DOCKET, KEPT_THINGS, SOURCES] = [
  'folder-job.json',
  'docket.json',
  'kept.json',
  'sources/',
] as const;
const MOST_SOURCES = 500;

const aboutSchema = z.object({
  version: z.literal(VERSION),
  title: z.string().max(400),
  sources: z
    .array(z.object({ name: z.string().max(400), sha256: z.string().regex(/^[0-9a-f]{64}$/) }))
    .max(MOST_SOURCES),
});
const keptSchema = z.object({
  sizes: z.array(z.unknown()).max(1000).default([]),
  kept: z.record(z.string(), z.array(z.unknown()).max(1000)).default({}),
});
const KINDS = keysOf(KEPT);

/** A job as a download. Throws Problem. */
export async function archiveOf(jobId: string): Promise<Response> {
  const { docket } = await readJob(jobId);
  const { rows } = await db().query<{ sha256: string; blob_id: string; size: string; at: Date }>(
    'select s.sha256, s.blob_id, b.size, s.taken_at as at from source s join blob b on b.id = s.blob_id where s.sha256 = any($1)',
    [filesOf(docket)],
  );
  const nameOf = (sha256: string) => {
    const step = docket.steps.find(
      (each) => each.kind === 'take-in' && (each.source === sha256 || each.cleaned?.from === sha256),
    );
    return step?.kind === 'take-in' ? step.name : `${sha256}.pdf`;
  };
  const json = (name: string, value: unknown) => ({
    name,
    input: `${JSON.stringify(value, null, 1)}\n`,
    lastModified: new Date(),
  });
  const kept = Object.fromEntries(await Promise.all(KINDS.map(async (kind) => [kind, await listKept(kind)])));
  const about = {
    version: VERSION,
    title: docket.title,
    sources: rows.map(({ sha256 }) => ({ name: nameOf(sha256), sha256 })),
  };
  const zip = downloadZip([
    json(ABOUT, about),
    json(DOCKET, docket),
    json(KEPT_THINGS, { sizes: await listOwnSizes(), kept }),
    ...rows.map(({ sha256, blob_id, size, at }) => ({
      name: `${SOURCES}${sha256}`,
      size: Number(size),
      lastModified: at,
      input: readBlob(blob_id),
    })),
  ]);
  return new Response(zip.body, {
    headers: { 'content-type': 'application/zip', ...asFile(`${safeName(docket.title)}.zip`) },
  });
}

const openZip = promisify<string, yauzl.Options, yauzl.ZipFile>(yauzl.open);

/** Opens a job that was saved as a ZIP, as a new job; its files are surveyed in their own time. Returns the job's id. Throws Problem. */
export async function openArchive(coming: Coming): Promise<string> {
  const zip = await arrivedFile(coming);
  try {
    return await inWorkFolder(async (folder) => {
      const path = join(folder, 'job.zip');
      await blobToFile(zip.id, path);
      return await readArchive(path);
    });
  } finally {
    await dropArriving(zip.id).catch(() => undefined);
  }
}

async function readArchive(path: string): Promise<string> {
  const zip = await openZip(path, { lazyEntries: true, autoClose: false, validateEntrySizes: true }).catch(
    bad,
  );
  const received: { id: string; sha256: string; size: number }[] = [];
  try {
    const entries = await entriesOf(zip);
    const jsonOf = async (name: string) => {
      const entry = entries.get(name);
      if (!entry || entry.uncompressedSize > MOST_JSON_BYTES) throw bad();
      const parts = [];
      for await (const part of await bytesOf(zip, entry)) parts.push(part);
      return readJson(Buffer.concat(parts));
    };
    const about = aboutSchema.safeParse(await jsonOf(ABOUT));
    if (!about.success) throw bad();
    const docket = docketFrom(await jsonOf(DOCKET));
    const kept = entries.has(KEPT_THINGS) ? keptSchema.safeParse(await jsonOf(KEPT_THINGS)) : undefined;
    for (const { sha256 } of about.data.sources) {
      const entry = entries.get(`${SOURCES}${sha256}`);
      if (!entry || entry.uncompressedSize > MOST_FILE_MB * 1024 * 1024) throw bad();
      const file = await receiveBlob(await bytesOf(zip, entry));
      received.push(file);
      if (file.sha256 !== sha256) throw bad();
    }
    const intakes: string[] = [];
    const job = await createJob(docket, async (client, id) => {
      for (const file of received) {
        const { id: blobId } = await sealBlob(client, file);
        const { name } = foundIn(about.data.sources, (each) => each.sha256 === file.sha256);
        const { rows } = await client.query<{ id: string }>(
          `insert into intake (job_id, name, place, state, blob_id, sha256, by) values ($1, $2, '{"at":"aside"}', 'waiting', $3, $4, $5) returning id`,
          [id, name, blobId, file.sha256, actor()],
        );
        intakes.push(firstOf(rows).id);
      }
    });
    received.length = 0;
    for (const id of intakes) enqueue('survey', id);
    if (kept?.success) await keepMissing(kept.data);
    return job;
  } catch (error) {
    for (const { id } of received) await dropArriving(id).catch(() => undefined);
    throw error;
  } finally {
    zip.close();
  }
}

const bad = (): never => {
  throw new Problem(400, { code: 'bad-archive' });
};

/** The entries of a ZIP by their names. Throws Problem if there are too many. */
async function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  const entries = new Map<string, yauzl.Entry>();
  await new Promise<void>((done, fail) => {
    zip.on('entry', (entry: yauzl.Entry) => {
      entries.set(entry.fileName, entry);
      if (entries.size > MOST_SOURCES + 10) fail(new Problem(400, { code: 'bad-archive' }));
      else zip.readEntry();
    });
    zip.once('end', done);
    zip.once('error', () => fail(new Problem(400, { code: 'bad-archive' })));
    zip.readEntry();
  });
  return entries;
}

/** The bytes of an entry, as they are unpacked; never more than it says that it has. */
async function bytesOf(zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<AsyncIterable<Uint8Array>> {
  const stream = await new Promise<Readable>((done, fail) =>
    zip.openReadStream(entry, (error, opened) => (error ? fail(error) : done(opened))),
  ).catch(bad);
  return (async function* () {
    try {
      for await (const part of stream) yield part;
    } catch (error) {
      // Damaged: what else goes wrong while it is read is told as it is.
      if (/invalid|corrupt|incorrect|unexpected end|too (many|few)|size/i.test(String(error))) bad();
      throw error;
    }
  })();
}

/** Keeps what came along under names that nothing has here. */
async function keepMissing({ sizes, kept }: z.infer<typeof keptSchema>): Promise<void> {
  const named = (value: unknown): string => (isRecord(value) ? String(value.name ?? '') : '').toLowerCase();
  const unlessBad = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
    }
  };
  const here = new Set((await listOwnSizes()).map(named));
  for (const size of sizes) if (!here.has(named(size))) await unlessBad(() => keepOwnSize(size));
  for (const kind of KINDS) {
    const known = new Set((await listKept(kind)).map(named));
    for (const each of kept[kind] ?? []) if (!known.has(named(each))) await unlessBad(() => keep(kind, each));
  }
}
