import { Upload as Tus, type DetailedError } from 'tus-js-client';
import { MOST_FILE_MB } from '../core/docket/limits';
import type { Cleaning } from '../core/pages/cleaning';
import type { Docket } from '../core/docket/docket';
import type { Output } from '../core/handover/outputs';
import type { Kept, KeptKind } from '../core/docket/kept';
import type { Recipe, RecipeValues } from '../core/docket/recipe';
import type { Place } from '../core/select/place';
import type { Survey } from '../core/model/survey';
import type {
  DropFolderState,
  JobListing,
  JobPulse,
  JobState,
  JobStatus,
  OwnSize,
  OwnStamp,
  ReplayedState,
  WorkState,
} from '../wire/told';
import type { JobQuery } from '../wire/jobQuery';
import type { Trouble } from '../words/troubles';
import { lastOf } from '../core/entries';

/** The server said no. For 409 `job` is how the job stands now. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly trouble: Trouble,
    readonly job?: JobState,
  ) {
    super(trouble.code);
  }
}

/** Statuses for a server or database that is away for a while, and for a session that has ended: the call is worth repeating later. */
const AWAY: readonly number[] = [0, 401, 502, 503, 504];
/** Whether a call failed because nobody answered, and not because it was refused. */
export const isNoAnswer = (error: unknown): boolean =>
  error instanceof Refused ? AWAY.includes(error.status) : isNetworkError(error);

/** By the Fetch standard a network error is a TypeError, and a call that timed out a TimeoutError. */
const isNetworkError = (error: unknown): boolean =>
  error instanceof TypeError || (error instanceof DOMException && error.name === 'TimeoutError');

/** A call that takes longer is given up. */
const CALL_MS = 30_000;
/** The same for status requests: people see within three seconds that the server went away. */
const PULSE_MS = 1800;

async function call<T>(method: string, path: string, body?: unknown, ms = CALL_MS): Promise<T> {
  const response = await fetch(path, {
    method,
    signal: AbortSignal.timeout(ms),
    ...(body === undefined
      ? {}
      : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  });
  if (response.ok) return (await response.json()) as T;
  const said = (await response.json().catch(() => ({}))) as { trouble?: Trouble; job?: JobState };
  throw new Refused(
    response.status,
    said.trouble ?? { code: 'unforeseen', data: { reason: `http-${response.status}` } },
    said.job,
  );
}

/** Does something that may be done twice, again and again while nobody answers. */
async function untilAnswered<T>(work: () => Promise<T>): Promise<T> {
  for (;;)
    try {
      return await work();
    } catch (error) {
      if (!isNoAnswer(error)) throw error;
      await new Promise((soon) => setTimeout(soon, 1000));
    }
}

export const api = {
  signIn: (name: string, password: string) => call('POST', '/api/session', { name, password }),
  signOut: () => call('DELETE', '/api/session'),
  newJob: (docket?: unknown) =>
    call<{ id: string }>('POST', '/api/jobs', docket === undefined ? {} : { docket }),
  /** Jobs that a query finds, in its order: so many from one on. */
  jobs: (query: JobQuery, from: number, count: number) =>
    call<JobListing[]>(
      'GET',
      `/api/jobs?${new URLSearchParams({ ...query, from: `${from}`, count: `${count}` })}`,
    ),
  openExample: () => call<{ id: string }>('POST', '/api/jobs/example', {}),
  copyJob: (id: string) => call<{ id: string }>('POST', `/api/jobs/${id}/copy`, {}),
  deleteJob: (id: string) => call('DELETE', `/api/jobs/${id}`),
  readJob: (id: string) => call<JobState>('GET', `/api/jobs/${id}`),
  save: (id: string, revision: number, docket: Docket) =>
    call<JobState>('PUT', `/api/jobs/${id}`, { revision, docket }),
  walk: (id: string, revision: number, direction: 'undo' | 'redo') =>
    call<JobState>('POST', `/api/jobs/${id}/${direction}`, { revision }),
  status: (id: string) => call<JobStatus>('GET', `/api/jobs/${id}/status`),
  pulse: (id: string, query: { window: string; tag: string; doing: string }) =>
    call<JobPulse>('GET', `/api/jobs/${id}/status?${new URLSearchParams(query)}`, undefined, PULSE_MS),
  /** Tells the server that a window no longer shows a job, without waiting for the answer, because the window may be closing. */
  gone: (id: string, window: string): void =>
    void fetch(`/api/jobs/${id}/status?window=${window}`, { method: 'DELETE', keepalive: true }).catch(
      () => undefined,
    ),
  survey: (sha256: string) => call<Survey>('GET', `/api/sources/${sha256}/survey`),
  clean: (id: string, source: string, cleaning: Cleaning) =>
    call<{ id: string }>('POST', `/api/jobs/${id}/clean`, { source, cleaning }),
  openWith: (intake: string, password: string) => call('POST', `/api/intakes/${intake}`, { password }),
  dismiss: (intake: string) => call('DELETE', `/api/intakes/${intake}`),
  order: (id: string, output: Output, despite?: string) =>
    call<{ id: string }>('POST', `/api/jobs/${id}/outputs`, { output, despite }),
  sizes: () => call<OwnSize[]>('GET', '/api/sizes'),
  keepSize: (size: OwnSize) => call<OwnSize[]>('PUT', '/api/sizes', size),
  dropSize: (name: string) => call<OwnSize[]>('DELETE', `/api/sizes?name=${encodeURIComponent(name)}`),
  stamps: () => call<OwnStamp[]>('GET', '/api/stamps'),
  keepStamp: (stamp: OwnStamp) => call<OwnStamp[]>('PUT', '/api/stamps', stamp),
  dropStamp: (name: string) => call<OwnStamp[]>('DELETE', `/api/stamps?name=${encodeURIComponent(name)}`),
  kept: <Kind extends KeptKind>(kind: Kind) => call<Kept<Kind>[]>('GET', `/api/kept/${kind}`),
  keep: <Kind extends KeptKind>(kind: Kind, kept: Kept<Kind>) =>
    call<Kept<Kind>[]>('PUT', `/api/kept/${kind}`, kept),
  forget: <Kind extends KeptKind>(kind: Kind, name: string) =>
    call<Kept<Kind>[]>('DELETE', `/api/kept/${kind}?name=${encodeURIComponent(name)}`),
  drop: (output: string) => call('DELETE', `/api/outputs/${output}`),
  recipes: () =>
    call<{
      recipes: Recipe[];
      unread: { name: string; trouble: Trouble }[];
      by: Record<string, string>;
    }>('GET', '/api/recipes'),
  saveRecipe: (recipe: unknown) => call<Recipe>('PUT', '/api/recipes', recipe),
  dropRecipe: (name: string) => call('DELETE', `/api/recipes/${encodeURIComponent(name)}`),
  replayOnJobs: (name: string, jobs: readonly string[], values: RecipeValues) =>
    call<ReplayedState[]>('POST', `/api/recipes/${encodeURIComponent(name)}/jobs`, { jobs, values }),
  work: () => call<WorkState[]>('GET', '/api/work'),
  tryAgain: (of: WorkState['of'], id: string) => call<WorkState[]>('POST', '/api/work', { of, id }),
  stopMeasures: (job: string) => call('DELETE', `/api/jobs/${job}/measures`),
  dropRun: (id: string) => call('DELETE', `/api/runs/${id}`),
  dropFolders: () => call<DropFolderState[]>('GET', '/api/drop-folders'),
  addDropFolder: (folder: { name: string; recipe: string; values: RecipeValues }) =>
    call<DropFolderState[]>('POST', '/api/drop-folders', folder),
  changeDropFolder: (id: string, change: { paused?: boolean; scanEvery?: number | null }) =>
    call<DropFolderState[]>('PATCH', `/api/drop-folders/${id}`, change),
  dropDropFolder: (id: string) => call<DropFolderState[]>('DELETE', `/api/drop-folders/${id}`),
  scan: (id: string, faults: readonly string[], kind: string) =>
    call<{ name: string }>('POST', `/api/drop-folders/${id}/scan`, { faults, kind }),
};

/** Bytes of a file in one request. After a broken connection only that piece is sent again. */
const PIECE_BYTES = 32 << 20;
/** An upload resumes by itself after broken connections, until about ten minutes have passed without a byte getting through. */
const RETRY_DELAYS = [0, 300, 1000, 2000, ...Array.from({ length: 120 }, () => 5000)];

/** Sends the bytes of a file (tus 1.0.0), and returns the id of the upload. `onProgress` hears the share sent, from 0 to 1. Rejects with Refused. */
async function sendBytes(file: File, onProgress: (share: number) => void): Promise<string> {
  if (file.size > MOST_FILE_MB * 1024 * 1024)
    throw new Refused(413, { code: 'too-large', data: { most: MOST_FILE_MB } });
  return new Promise((done, fail) => {
    const sending = new Tus(file, {
      endpoint: '/api/uploads',
      chunkSize: PIECE_BYTES,
      retryDelays: RETRY_DELAYS,
      storeFingerprintForResuming: false,
      onProgress: (sent, total) => onProgress(total ? sent / total : 0),
      onShouldRetry: (error) => {
        const status = 'originalResponse' in error ? (error.originalResponse?.getStatus() ?? 0) : 0;
        // The piece was stored already; ask the server for the offset and go on from there.
        return AWAY.includes(status) || status === 409 || status === 423 || status === 500;
      },
      onError: (error) => {
        fail(refusalOf(error));
        // Delete what was sent so far; if the server does not answer, it deletes it after a day.
        void sending.abort(true).catch(() => undefined);
      },
      onSuccess: () => done(lastOf(sending.url!.split('/'))),
    });
    sending.start();
  });
}

function refusalOf(error: Error | DetailedError): Refused {
  const answer = 'originalResponse' in error ? error.originalResponse : null;
  if (!answer) return new Refused(0, { code: 'upload-cut-off' });
  try {
    const { trouble } = JSON.parse(answer.getBody()) as { trouble: Trouble };
    return new Refused(answer.getStatus(), trouble);
  } catch {
    return new Refused(
      answer.getStatus(),
      answer.getStatus() === 413
        ? { code: 'too-large', data: { most: MOST_FILE_MB } }
        : { code: 'unforeseen', data: { reason: `http-${answer.getStatus()}` } },
    );
  }
}

/** Opens a job that was saved as a file; returns its id. Rejects with Refused. */
export async function openJobFile(file: File): Promise<string> {
  const upload = await sendBytes(file, () => undefined);
  return (await call<{ id: string }>('POST', `/api/archives?upload=${upload}`, {})).id;
}

/** Sends a file of a batch, to be worked by a recipe. Rejects with Refused. */
export async function uploadRun(
  recipe: string,
  values: RecipeValues,
  batch: string,
  file: File,
): Promise<void> {
  const id = await sendBytes(file, () => undefined);
  const query = new URLSearchParams({
    recipe,
    values: JSON.stringify(values),
    batch,
    name: file.name,
    upload: id,
  });
  await untilAnswered(() => call('POST', `/api/runs?${query}`, {}));
}

/** Sends a file to become pages at a place, or to be kept aside; `onProgress` hears the share sent, from 0 to 1. Rejects with Refused. */
export async function upload(
  jobId: string,
  file: File,
  place: Place | { at: 'aside' },
  onProgress: (share: number) => void,
): Promise<{ id: string; sha256: string }> {
  const id = await sendBytes(file, onProgress);
  const query = new URLSearchParams({ name: file.name, place: JSON.stringify(place), upload: id });
  return untilAnswered(() => call('POST', `/api/jobs/${jobId}/intakes?${query}`, {}));
}
