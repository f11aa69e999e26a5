import type { Docket } from '../core/docket/docket';
import type { Output } from '../core/handover/output';
import type { Kept, KeptKind } from '../core/docket/kept';
import type { Recipe, RecipeValues } from '../core/docket/recipe';
import type { Place } from '../core/pages/place';
import type { Survey } from '../core/pages/survey';
import type {
  DropFolderState,
  JobState,
  JobStatus,
  OwnSize,
  OwnStamp,
  ReplayedState,
  WorkState,
} from '../wire/told';
import type { Trouble } from '../words/errors';

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

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await fetch(path, {
    method,
    ...(body === undefined
      ? {}
      : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
  });
  if (response.ok) return (await response.json()) as T;
  const said = (await response.json().catch(() => ({}))) as { trouble?: Trouble; job?: JobState };
  throw new Refused(response.status, said.trouble ?? { code: `http-${response.status}` }, said.job);
}

export const api = {
  newJob: (docket?: unknown) =>
    call<{ id: string }>('POST', '/api/jobs', docket === undefined ? {} : { docket }),
  copyJob: (id: string) => call<{ id: string }>('POST', `/api/jobs/${id}/copy`),
  deleteJob: (id: string) => call('DELETE', `/api/jobs/${id}`),
  readJob: (id: string) => call<JobState>('GET', `/api/jobs/${id}`),
  save: (id: string, revision: number, docket: Docket) =>
    call<JobState>('PUT', `/api/jobs/${id}`, { revision, docket }),
  walk: (id: string, revision: number, direction: 'undo' | 'redo') =>
    call<JobState>('POST', `/api/jobs/${id}/${direction}`, { revision }),
  status: (id: string) => call<JobStatus>('GET', `/api/jobs/${id}/status`),
  survey: (sha256: string) => call<Survey>('GET', `/api/sources/${sha256}/survey`),
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
    call<{ recipes: Recipe[]; unread: { name: string; trouble: Trouble }[] }>('GET', '/api/recipes'),
  saveRecipe: (recipe: unknown) => call<Recipe>('PUT', '/api/recipes', recipe),
  dropRecipe: (name: string) => call('DELETE', `/api/recipes/${encodeURIComponent(name)}`),
  replayOnJobs: (name: string, jobs: readonly string[], values: RecipeValues) =>
    call<ReplayedState[]>('POST', `/api/recipes/${encodeURIComponent(name)}/jobs`, { jobs, values }),
  work: () => call<WorkState[]>('GET', '/api/work'),
  dropRun: (id: string) => call('DELETE', `/api/runs/${id}`),
  dropFolders: () => call<DropFolderState[]>('GET', '/api/drop-folders'),
  addDropFolder: (folder: { name: string; recipe: string; values: RecipeValues }) =>
    call<DropFolderState[]>('POST', '/api/drop-folders', folder),
  changeDropFolder: (id: string, change: { paused?: boolean; scanEvery?: number | null }) =>
    call<DropFolderState[]>('PATCH', `/api/drop-folders/${id}`, change),
  dropDropFolder: (id: string) => call<DropFolderState[]>('DELETE', `/api/drop-folders/${id}`),
  scan: (id: string, faults: readonly string[]) =>
    call<{ name: string }>('POST', `/api/drop-folders/${id}/scan`, { faults }),
};

/** Sends a file of a batch, to be worked by a recipe. Rejects with Refused. */
export async function uploadRun(
  recipe: string,
  values: RecipeValues,
  batch: string,
  file: File,
): Promise<void> {
  const query = new URLSearchParams({ recipe, values: JSON.stringify(values), batch, name: file.name });
  const response = await fetch(`/api/runs?${query}`, { method: 'POST', body: file });
  if (response.ok) return;
  const said = (await response.json().catch(() => ({}))) as { trouble?: Trouble };
  throw new Refused(response.status, said.trouble ?? { code: `http-${response.status}` });
}

/** Sends a file to become pages at a place, or to be kept aside; `onProgress` hears the share sent, from 0 to 1. Rejects with Refused. */
export function upload(
  jobId: string,
  file: File,
  place: Place | { at: 'aside' },
  onProgress: (share: number) => void,
): Promise<{ id: string; sha256: string }> {
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest();
    request.open(
      'POST',
      `/api/jobs/${jobId}/intakes?name=${encodeURIComponent(file.name)}&place=${encodeURIComponent(JSON.stringify(place))}`,
    );
    request.upload.onprogress = (event) => onProgress(event.total ? event.loaded / event.total : 0);
    request.onload = () => {
      if (request.status < 300)
        return done(JSON.parse(request.responseText) as { id: string; sha256: string });
      let trouble: Trouble = { code: `http-${request.status}` };
      try {
        trouble = (JSON.parse(request.responseText) as { trouble: Trouble }).trouble;
      } catch {
        // The answer was not ours; its status says enough.
      }
      fail(new Refused(request.status, trouble));
    };
    request.onerror = () => fail(new Refused(0, { code: 'upload-cut-off' }));
    request.send(file);
  });
}
