import type { Docket } from '../core/docket/docket';
import type { CutBy, Output } from '../core/handover/output';
import type { Size } from '../core/measure/box';
import type { Finding } from '../core/checks/finding';
import type { Kept, KeptKind } from '../core/docket/kept';
import type { Recipe, RecipeValues } from '../core/docket/recipe';
import type { KeptStamp } from '../core/docket/steps/stamp';
import type { Place } from '../core/pages/place';
import type { Survey } from '../core/pages/survey';
import type { Trouble } from '../words/errors';

/** The shapes that the server sends. */
export interface JobState {
  id: string;
  revision: number;
  docket: Docket;
  canUndo: boolean;
  redo: Docket[];
}
/** A size that the preparer named; lengths in points. */
export interface OwnSize {
  name: string;
  width: number;
  height: number;
}
/** A stamp that the preparer kept. */
export interface OwnStamp {
  name: string;
  stamp: KeptStamp;
}
export interface IntakeState {
  id: string;
  name: string;
  state: 'surveying' | 'surveyed' | 'done' | 'failed';
  done: number;
  total: number;
  trouble?: Trouble;
}
export interface OutputState {
  id: string;
  spec: Output;
  fileName: string;
  state: 'waiting' | 'making' | 'done' | 'failed' | 'cancelled';
  doing: 'writing' | 'checking';
  done: number;
  total: number;
  files: OutputFile[];
  trouble?: Trouble;
  createdAt: string;
  finishedAt?: string;
  fresh: boolean;
  despite?: string;
}
/** One file of an output. */
export interface OutputFile {
  name: string;
  bytes: number;
  pages?: number;
  from?: number;
  to?: number;
  size?: Size;
  side?: 'front' | 'back';
  upsideDown?: true;
  cut?: { by: CutBy; length: number; pieces: number };
  over?: true;
  alone?: true;
}
/** What is found, in short. */
type Told = { level: Finding['level']; title: string }[];
/** A piece of running or recent work: a recipe on a file, an output, a file on its way in, pages being measured. */
export interface WorkState {
  of: 'run' | 'output' | 'intake' | 'measure';
  id: string;
  name: string;
  for: string;
  folder?: string;
  state: 'waiting' | 'working' | 'done' | 'failed' | 'cancelled';
  doing?: string;
  done: number;
  total: number;
  job?: string;
  findings?: Told;
  trouble?: Trouble;
  createdAt: string;
  finishedAt?: string;
}
/** What a recipe made of a job. */
export interface ReplayedState {
  job: string;
  title: string;
  pages: number;
  findings: Told;
  trouble?: Trouble;
}
export interface DropFolderState {
  id: string;
  name: string;
  path: string;
  recipe: string;
  values: RecipeValues;
  paused: boolean;
  trouble?: Trouble;
  scanEvery?: number;
  waiting: number;
  done: number;
  failed: number;
}
export interface Status {
  revision: number;
  intakes: IntakeState[];
  /** SHA-256 of the sources that are not measured yet. */
  measuring: string[];
  outputs: OutputState[];
}

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
  status: (id: string) => call<Status>('GET', `/api/jobs/${id}/status`),
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
