import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { copyFile, lstat, open, readdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { PoolClient } from 'pg';
import { workOut } from '../../core/checks';
import { looksAtPages, sourcesOf, type Docket } from '../../core/docket/docket';
import { docketOfFile, RecipeError } from '../../core/docket/recipe';
import { possibleKinds } from '../../core/handover/parts';
import { surveySchema, type Survey } from '../../core/pages/survey';
import type { Trouble } from '../../words/errors';
import { sayFinding } from '../../words/findings';
import { blobToFile, fileBytes, MOST_MB, storeBlob } from '../blobs';
import { db, transaction } from '../db';
import { openDirectory, settleFile } from '../dropFolders';
import { PLACES } from '../dropPlace';
import { runInFence } from '../fence';
import type { MeasureTask } from '../fenced/measureFile';
import type { MadeFile } from '../fenced/made';
import type { SurveyTask } from '../fenced/surveyFile';
import { finishMeasureIn } from '../measures';
import { createJobIn } from '../jobs';
import { addFinished } from '../outputs';
import { keepToOwnCore } from '../ownCore';
import { beginRun, finishRun, tendRun, tieToRun, type BegunRun } from '../runs';
import { addSource, blobOfSource, holdSource, surveysOf } from '../sources';
import { fetchSources, makeFiles, storeFiles } from './makeFiles';
import { troubleOf } from '../trouble';
import { inWorkFolder } from '../workFolder';
import type { Told } from '../../wire/told';

const TEND_EVERY_MS = 500;
const SURVEY_LIMITS = { seconds: 120, mb: 2048, goesOn: true } as const;
const MEASURE_LIMITS = { seconds: 60, secondsAPage: 1, mb: 3072 };

/** Works what waits, the oldest first, until nothing does or it is told to stop. */
export async function makeRuns(goesOn: () => boolean): Promise<void> {
  let row = false;
  try {
    while (goesOn()) {
      const next = await beginRun();
      if (!next) return;
      if (!row) keepToOwnCore(process.pid, true);
      row = true;
      await makeRun(next.id, next);
    }
  } finally {
    if (row) keepToOwnCore(process.pid, false);
  }
}

/** Runs that this process is working. */
export const running = new Map<string, AbortController>();

/** The run is this worker's no more: it was cancelled, or given to another one. */
class Lost extends Error {}
/** A source that was here is here no more: nobody used it. */
class Swept extends Error {}
/** The run ends badly, for a reason that is told. */
class Failed extends Error {
  constructor(readonly trouble: Trouble) {
    super(trouble.code);
  }
}

/**
 * Carries a recipe out on one file: takes it in, works the steps, makes what goes out, and moves the file of a drop folder
 * where it belongs. Whatever was done before a worker died is found again, so that it can be begun anew at any time.
 */
async function makeRun(id: string, begun: BegunRun): Promise<void> {
  const controller = new AbortController();
  running.set(id, controller);
  const now: { doing: string; done: number; total: number } = { doing: 'taking in', done: 0, total: 0 };
  const tend = setInterval(async () => {
    if (!(await tendRun(id, begun.claim, now.doing, now.done, now.total))) controller.abort();
  }, TEND_EVERY_MS);
  let trouble: Trouble | undefined;
  try {
    await inWorkFolder(async (folder) => {
      const work: Work = { id, begun, folder, signal: controller.signal, now };
      await carryOut(work).catch((error) => {
        if (error instanceof Swept) return carryOut(work);
        throw error;
      });
    });
  } catch (error) {
    trouble = toTell(error);
    if (!trouble) return;
    const said = trouble;
    if (begun.folder) await clearBeside(id, begun).catch(() => undefined);
    if (!(await transaction((client) => finishRun(client, id, begun.claim, said)))) return;
  } finally {
    clearInterval(tend);
    running.delete(id);
  }
  if (begun.folder) await settleFile(await openDirectory(begun.folder.name), id, begun.fileName, trouble);
}

/** What to tell of an error; undefined where the run is not this worker's to end. */
function toTell(error: unknown): Trouble | undefined {
  if (error instanceof Lost) return undefined;
  if (error instanceof RecipeError) return { code: error.code, data: error.data };
  const trouble = troubleOf(error) ?? { code: 'unforeseen', data: { reason: String(error).slice(0, 300) } };
  return trouble.code === 'cancelled' ? undefined : trouble;
}

interface Work {
  id: string;
  begun: BegunRun;
  folder: string;
  signal: AbortSignal;
  now: { doing: string; done: number; total: number };
}

async function carryOut(work: Work): Promise<void> {
  const { id, begun, folder, now, signal } = work;
  const { source, survey, file, keep } = await takeFile(work);
  const docket = docketOfFile({ source, name: begun.fileName }, begun.recipe, begun.values);
  now.doing = 'working the steps';
  const others = sourcesOf(docket).filter((sha256) => sha256 !== source);
  const surveys = { ...(others.length ? await surveysOf(others) : {}), [source]: survey };
  const job = workOut(docket, surveys);
  const { findings } = job;
  const told: Told = findings.map((finding) => ({
    level: finding.level,
    title: sayFinding(finding, docket.unit).title,
  }));
  // A job that an earlier try made is this one's: no file gives two.
  const jobId =
    begun.jobId ??
    (await transaction(async (client) => {
      await keep(client);
      const made = await createJobIn(client, job);
      if (!(await tieToRun(client, id, begun.claim, { id: made, findings: told }))) throw new Lost();
      return made;
    }));
  const stops = told.filter(({ level }) => level === 'stop');
  if (stops.length)
    throw new Failed({
      code: 'run-stopped',
      data: { count: stops.length, what: stops.map(({ title }) => title).join('; ') },
    });
  const files = await fetchSources(docket, folder, { [source]: file });
  const made: { output: Docket['outputs'][0]; into: string; files: MadeFile[] }[] = [];
  const possible = possibleKinds(job);
  for (const [n, output] of docket.outputs.entries()) {
    if (!possible.includes(output.kind)) continue;
    const into = join(folder, `out-${n}`);
    const list = await makeFiles(
      { docket, output, surveys },
      files,
      into,
      signal,
      (doing, done, total) => Object.assign(now, { doing, done, total }),
      true,
    );
    made.push({ output, into, files: list });
  }
  Object.assign(now, { doing: 'handing over', done: 0, total: 0 });
  if (begun.folder) await putBeside(work, made);
  await transaction(async (client) => {
    for (const { output, into, files: list } of made)
      await addFinished(client, jobId, docket, output, await storeFiles(client, into, list));
    if (!(await finishRun(client, id, begun.claim))) throw new Lost();
  });
}

/** The file of a run, surveyed, and measured where the recipe asks what is drawn on it. */
interface Taken {
  source: string;
  survey: Survey;
  /** The path of its PDF. */
  file: string;
  /** Makes it a source, in the transaction that makes a job of it: what no job uses may be swept away at any time. */
  keep: (client: PoolClient) => Promise<void>;
}

async function takeFile(work: Work): Promise<Taken> {
  const { begun, folder, signal, now } = work;
  const supplied = join(folder, 'in');
  const source = begun.blobId ? await hashOf(begun.blobId) : await copyAside(work, supplied);
  const known = (await surveysOf([source]))[source];
  const pdf = join(folder, 'made.pdf');
  let survey = known;
  if (!survey) {
    if (begun.blobId) await blobToFile(begun.blobId, supplied);
    const task: SurveyTask = { file: supplied, out: join(folder, 'survey.json'), pdf };
    await runInFence('surveyFile', task, SURVEY_LIMITS, signal, (done, total) =>
      Object.assign(now, { done, total }),
    );
    survey = surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8')));
  }
  const file = survey.picture ? pdf : supplied;
  if (!existsSync(file)) {
    const blob = await blobOfSource(source);
    if (!blob) throw new Swept();
    await blobToFile(blob.id, file);
  }
  let measured: Survey | undefined;
  if (looksAtPages(begun.recipe) && !survey.pages.every(({ drawn }) => drawn))
    measured = await measureNow(survey, file, work);
  const best = measured ?? survey;
  return {
    source,
    survey: best,
    file,
    keep: async (client) => {
      if (known) {
        if (!(await holdSource(client, source))) throw new Swept();
        if (measured) await finishMeasureIn(client, source, measured);
        return;
      }
      const blobId = begun.blobId ?? (await storeBlob(client, fileBytes(supplied))).id;
      const pdfBlob = survey.picture && (await storeBlob(client, fileBytes(pdf)));
      await addSource(client, source, blobId, best, pdfBlob?.id);
    },
  };
}

/** The SHA-256 of a blob. */
async function hashOf(blobId: string): Promise<string> {
  const { rows } = await db().query<{ sha256: string }>('select sha256 from blob where id = $1', [blobId]);
  return rows[0]!.sha256;
}

async function measureNow(survey: Survey, file: string, { folder, signal, now }: Work): Promise<Survey> {
  Object.assign(now, { doing: 'reading the pages', done: 0, total: 0 });
  const task: MeasureTask = {
    file,
    survey,
    out: join(folder, 'measured.json'),
  };
  const seconds = MEASURE_LIMITS.seconds + MEASURE_LIMITS.secondsAPage * survey.pages.length;
  await runInFence(
    'measureFile',
    task,
    { seconds, mb: MEASURE_LIMITS.mb, goesOn: true },
    signal,
    (done, total) => Object.assign(now, { done, total }),
  );
  return surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8')));
}

/** The directory that a file of a drop folder lies in while it is worked. */
const asideOf = async (id: string, begun: BegunRun): Promise<string> =>
  join(await openDirectory(begun.folder!.name), PLACES.working, id);

/** Copies the file of a drop folder to where nobody else changes it; its SHA-256. Links are not followed, and nothing but plain files is opened. */
async function copyAside(work: Work, to: string): Promise<string> {
  const path = join(await asideOf(work.id, work.begun), work.begun.fileName);
  const stat = await lstat(path).catch(() => undefined);
  if (!stat) throw new Failed({ code: 'drop-file-gone' });
  if (!stat.isFile()) throw new Failed({ code: 'drop-no-file' });
  if (stat.size > MOST_MB * 1024 * 1024) throw new Failed({ code: 'too-large', data: { most: MOST_MB } });
  const hash = createHash('sha256');
  const copy = await open(to, 'w');
  try {
    for await (const bytes of fileBytes(path)) {
      hash.update(bytes);
      await copy.write(bytes);
    }
  } catch (error) {
    if (troubleOf(error)) throw error;
    const { code = '' } = error as NodeJS.ErrnoException;
    throw new Failed({ code: 'drop-unreadable', data: { reason: code } });
  } finally {
    await copy.close();
  }
  return hash.digest('hex');
}

/** Leaves nothing beside the file of a run: what was put there is of an earlier try, or of one that failed half-way. */
async function clearBeside(id: string, begun: BegunRun): Promise<void> {
  const aside = await asideOf(id, begun);
  for (const name of await readdir(aside))
    if (name !== begun.fileName) await rm(join(aside, name), { recursive: true });
}

/** Puts the made files beside the one they were made of. */
async function putBeside(
  { id, begun }: Work,
  made: readonly { into: string; files: MadeFile[] }[],
): Promise<void> {
  await clearBeside(id, begun);
  const aside = await asideOf(id, begun);
  const taken = new Set([begun.fileName.toLowerCase()]);
  for (const { into, files } of made)
    for (const { file, name } of files) {
      let free = name;
      for (let n = 2; taken.has(free.toLowerCase()); n++) free = name.replace(/(\.[^.]+)$/, ` ${n}$1`);
      taken.add(free.toLowerCase());
      await copyFile(join(into, file), join(aside, free));
    }
}
