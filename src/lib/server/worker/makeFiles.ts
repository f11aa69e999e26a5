import { momentOf } from '../../core/numbers/day';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { PoolClient } from 'pg';
import { sourcesOf, type Docket } from '../../core/docket/docket';
import type { Proved } from '../../core/finish/proof';
import { outputKind, type Output } from '../../core/handover/outputs';
import type { Surveys } from '../../core/model/survey';
import { dropArriving, fileBytes, receiveBlob, sealBlob, storeBlob, type Arrived } from '../blobs';
import { nearToFile } from '../nearFiles';
import { openToFence } from '../fenceUser';
import { runInFence, type FenceLimits } from '../fence';
import type { CheckTask } from '../fenced/checkOutputFiles';
import { MADE, type MadeFile } from '../../make/made';
import { sendSurveys } from '../fenced/sentSurveys';
import type { OutputTask } from '../fenced/writeOutputFile';
import type { OutputState } from '../../wire/told';
import { blobOfSource, surveysOf } from '../sources';

const LIMITS = { seconds: 1800, mb: 4096 };

/** Copies the sources of a docket to a folder, but for those that lie there; the paths of all by SHA-256. */
export async function fetchSources(
  docket: Docket,
  folder: string,
  there: Readonly<Record<string, string>> = {},
): Promise<Record<string, string>> {
  const files = { ...there };
  for (const source of sourcesOf(docket)) {
    if (files[source]) continue;
    const blob = await blobOfSource(source);
    if (!blob) continue;
    files[source] = join(folder, `${source}.pdf`);
    await nearToFile(blob.id, files[source]);
  }
  return files;
}

/** What is made; `surveys` are those of its sources where they are known. */
interface Ordered {
  docket: Docket;
  output: Output;
  despite?: string | null;
  proved?: Proved | undefined;
  /** In which language it was ordered. */
  language?: string;
  surveys?: Surveys;
}

/**
 * Makes the files of an output in `folder`, and reads each again in a process that did not write it: what is not as it was
 * asked goes to nobody. Throws FenceError.
 */
export async function makeFiles(
  { docket, output, despite, proved, language, surveys }: Ordered,
  files: Record<string, string>,
  folder: string,
  signal: AbortSignal,
  onProgress: (doing: OutputState['doing'], done: number, total: number) => void,
  /** `row`: it is one of many in a row. `meanwhile` is done with the files while they are read again, and waited for. */
  { row = false, meanwhile }: { row?: boolean; meanwhile?: (made: MadeFile[]) => Promise<void> } = {},
): Promise<MadeFile[]> {
  const limits: FenceLimits = row ? { ...LIMITS, row: true } : LIMITS;
  await mkdir(folder);
  await openToFence(folder);
  const known = surveys ?? (await surveysOf(Object.keys(files)));
  const asked = { docket, output, surveys: sendSurveys(known, output), folder };
  const task: OutputTask = {
    ...asked,
    files,
    at: momentOf(process.env.SOURCE_DATE_EPOCH).toISOString(),
    ...(despite ? { despite } : {}),
    ...(proved ? { proved } : {}),
    ...(language && outputKind(output.kind).isWorded ? { language } : {}),
  };
  await runInFence('writeOutputFile', task, limits, signal, (done, total, doing = 'writing') =>
    onProgress(doing, done, total),
  );
  onProgress('checking', 0, 0);
  const made: MadeFile[] = JSON.parse(await readFile(join(folder, MADE), 'utf8'));
  const checked = runInFence('checkOutputFiles', asked satisfies CheckTask, limits, signal, (done, total) =>
    onProgress('checking', done, total),
  );
  const ends = await Promise.allSettled([checked, meanwhile?.(made)]);
  for (const end of ends) if (end.status === 'rejected') throw end.reason;
  return made;
}

/** Files that are stored but belong to nothing yet. */
export class StoredFiles {
  private readonly files: { arrived: Arrived; made: MadeFile }[] = [];

  /** Stores files out of a folder, each piece in a transaction of its own. */
  async store(folder: string, made: readonly MadeFile[], signal: AbortSignal): Promise<void> {
    for (const file of made) {
      const arrived = await receiveBlob(unlessAborted(fileBytes(join(folder, file.file)), signal));
      this.files.push({ arrived, made: file });
    }
  }

  /** Makes them blobs in the caller's transaction. */
  async seal(client: PoolClient): Promise<{ blobId: string; made: MadeFile }[]> {
    const sealed = [];
    for (const { arrived, made } of this.files)
      sealed.push({ blobId: (await sealBlob(client, arrived)).id, made });
    return sealed;
  }

  /** Deletes those that were not sealed; where that fails they go with what is abandoned. */
  async drop(): Promise<void> {
    for (const { arrived } of this.files) await dropArriving(arrived.id).catch(() => undefined);
  }
}

async function* unlessAborted(
  bytes: AsyncIterable<Uint8Array>,
  signal: AbortSignal,
): AsyncGenerator<Uint8Array> {
  for await (const chunk of bytes) {
    signal.throwIfAborted();
    yield chunk;
  }
}

/** Stores made files in the caller's transaction. */
export async function storeFiles(
  client: PoolClient,
  folder: string,
  made: readonly MadeFile[],
): Promise<{ blobId: string; made: MadeFile }[]> {
  const stored = [];
  for (const file of made) {
    const { id } = await storeBlob(client, fileBytes(join(folder, file.file)));
    stored.push({ blobId: id, made: file });
  }
  return stored;
}
