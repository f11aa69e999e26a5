import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { copyFile, lstat, mkdir, open, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { PoolClient } from 'pg';
import { workOut } from '../../core/checks';
import { MOST_FILE_MB } from '../../core/docket/limits';
import { looksAtPages, sourcesOf, type Docket } from '../../core/docket/docket';
import { docketOfFile, RecipeError } from '../../core/docket/recipe';
import { possibleKinds } from '../../core/handover/outputs';
import { surveySchema, type Survey } from '../../core/model/survey';
import { troubleFrom, type Trouble } from '../../words/troubles';
import { actAs } from '../actor';
import { blobToFile, fileBytes, storeBlob } from '../blobs';
import type { Claim, Progress } from '../claims';
import { db, transaction } from '../db';
import { openDirectory, settleFile } from '../dropFolders';
import { PLACES, placeOfTry } from '../../make/dropPlace';
import { packedSet, filesOfSet } from '../../make/pictureSet';
import { runInFence } from '../fence';
import type { MeasureTask } from '../fenced/measureFile';
import type { MadeFile } from '../../make/made';
import type { SurveyTask } from '../fenced/surveyFile';
import { finishMeasureIn } from '../measures';
import { createJobIn } from '../jobs';
import { judgedOf } from '../judged';
import { addFinished } from '../outputs';
import { keepToOwnCore } from '../ownCore';
import { claimRun, finishRun, orderedRun, tieToRun, type BegunRun } from '../runs';
import { speakIn } from '../speech';
import { addSource, blobOfSource, holdSource, surveysOf } from '../sources';
import { fetchSources, makeFiles, storeFiles } from './makeFiles';
import { troubleOf } from '../trouble';
import { inWorkFolder } from '../workFolder';
import { Lost, workAt, type Worked } from './workAt';
import { firstOf } from '../../core/entries';
import { codeOf } from '../../core/unknown';

const SURVEY_LIMITS = { seconds: 120, mb: 2048, row: true } as const;
const MEASURE_LIMITS = { seconds: 60, secondsAPage: 1, mb: 3072 };

/**
 * Works what waits, the oldest first, until nothing does or it is told to stop. Rows of files are taken from the list itself
 * and not handed out over the queue: a message and a visit for each of hundreds of small files would cost more than the work.
 */
export async function makeRuns(goesOn: () => boolean): Promise<void> {
  let row = false;
  try {
    while (goesOn()) {
      const next = await claimRun();
      if (!next) return;
      if (!row) keepToOwnCore(process.pid, true);
      row = true;
      await workAt(runWork, next);
    }
  } finally {
    if (row) keepToOwnCore(process.pid, false);
  }
}

/** The source was deleted meanwhile, because no job used it. */
class Swept extends Error {}
/** The run failed, for a reason that the user is told. */
class Failed extends Error {
  constructor(readonly trouble: Trouble) {
    super(trouble.code);
  }
}

/**
 * Carries a recipe out on one file: takes it in, works the steps, makes what goes out, and moves the file of a drop folder
 * where it belongs. Whatever was done before a worker died is found again, so that it can be begun anew at any time.
 */
export const runWork: Worked = {
  kind: 'run',
  async carryOut(claim, now, signal) {
    const begun = await orderedRun(claim);
    if (!begun) throw new Lost();
    const inItsName = <T>(work: () => T) => actAs(begun.by, () => speakIn(begun.language, work));
    await inItsName(() =>
      inWorkFolder(async (folder) => {
        const work: Work = { claim, begun, folder, signal, now };
        await carryOut(work).catch((error) => {
          if (error instanceof Swept) return carryOut(work);
          throw error instanceof RecipeError ? new Failed(troubleFrom(error)) : error;
        });
      }),
    );
    if (begun.folder)
      await settleFile(await openDirectory(begun.folder.name), claim.id, begun.fileName, {
        token: claim.token,
      });
  },
  async fail(claim, trouble, kept) {
    const begun = await orderedRun(claim);
    // The file of a drop folder goes to `failed`, where it can be taken from: only that of a batch is kept here.
    const failure = { trouble, kept: kept && !begun?.folder };
    if (!begun || !(await transaction((client) => finishRun(client, claim, failure)))) return;
    if (begun.folder)
      await settleFile(await openDirectory(begun.folder.name), claim.id, begun.fileName, { trouble });
  },
};

interface Work {
  claim: Claim;
  begun: BegunRun;
  folder: string;
  signal: AbortSignal;
  now: Progress;
}

async function carryOut(work: Work): Promise<void> {
  const { claim, begun, folder, now, signal } = work;
  now.doing = 'taking in';
  const { source, survey, file, keep } = await takeFile(work);
  const docket = docketOfFile({ source, name: begun.fileName }, begun.recipe, begun.values);
  now.doing = 'working the steps';
  const others = sourcesOf(docket).filter((sha256) => sha256 !== source);
  const surveys = { ...(others.length ? await surveysOf(others) : {}), [source]: survey };
  const job = workOut(docket, surveys);
  const { summary, findings: told } = judgedOf(job);
  // If an earlier try made a job, this try uses it: one file never gives two jobs.
  const jobId =
    begun.jobId ??
    (await transaction(async (client) => {
      await keep(client);
      const made = await createJobIn(client, docket, summary);
      if (!(await tieToRun(client, claim, { id: made, findings: told }))) throw new Lost();
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
      { docket, output, surveys, language: begun.language },
      files,
      into,
      signal,
      (doing, done, total) => Object.assign(now, { doing, done, total }),
      { row: true },
    );
    made.push({ output, into, files: list });
  }
  Object.assign(now, { doing: 'handing over', done: 0, total: 0 });
  if (begun.folder) await putBeside(work, made);
  await transaction(async (client) => {
    for (const { output, into, files: list } of made)
      await addFinished(client, jobId, docket, output, await storeFiles(client, into, list));
    if (!(await finishRun(client, claim))) throw new Lost();
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
  const file = survey.picture || existsSync(pdf) ? pdf : supplied;
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
      const pdfBlob = existsSync(pdf) ? await storeBlob(client, fileBytes(pdf)) : undefined;
      await addSource(client, source, blobId, best, pdfBlob?.id);
    },
  };
}

/** The SHA-256 of a blob. */
async function hashOf(blobId: string): Promise<string> {
  const { rows } = await db().query<{ sha256: string }>('select sha256 from blob where id = $1', [blobId]);
  return firstOf(rows).sha256;
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
    { seconds, mb: MEASURE_LIMITS.mb, row: true },
    signal,
    (done, total) => Object.assign(now, { done, total }),
  );
  return surveySchema.parse(JSON.parse(await readFile(task.out, 'utf8')));
}

/** The directory that a file of a drop folder lies in while it is worked. */
const asideOf = async ({ claim, begun }: Work): Promise<string> =>
  join(await openDirectory(begun.folder!.name), PLACES.working, claim.id);

/** Copies the file of a drop folder, or packs its set of pictures, to where nobody else changes it; its SHA-256. Links are not followed, and nothing but plain files is opened. */
async function copyAside(work: Work, to: string): Promise<string> {
  const path = join(await asideOf(work), work.begun.fileName);
  const stat = await lstat(path).catch(() => undefined);
  if (!stat) throw new Failed({ code: 'drop-file-gone' });
  if (!stat.isFile() && !stat.isDirectory()) throw new Failed({ code: 'drop-no-file' });
  const size = stat.isFile()
    ? stat.size
    : (await filesOfSet(path)).reduce((sum, picture) => sum + picture.stat.size, 0);
  if (size > MOST_FILE_MB * 1024 * 1024)
    throw new Failed({ code: 'too-large', data: { most: MOST_FILE_MB } });
  const hash = createHash('sha256');
  const copy = await open(to, 'w');
  try {
    for await (const bytes of stat.isFile() ? fileBytes(path) : packedSet(path, fileBytes)) {
      hash.update(bytes);
      await copy.write(bytes);
    }
  } catch (error) {
    if (troubleOf(error)) throw error;
    const code = String(codeOf(error) ?? '');
    throw new Failed({ code: 'drop-unreadable', data: { reason: code } });
  } finally {
    await copy.close();
  }
  return hash.digest('hex');
}

/**
 * Puts the made files beside the one they were made of, in a directory of this try alone: a try that lost its claim and does
 * not know it yet touches nothing of the one that counts.
 */
async function putBeside(work: Work, made: readonly { into: string; files: MadeFile[] }[]): Promise<void> {
  const mine = join(await asideOf(work), placeOfTry(work.claim.token));
  await mkdir(mine);
  const taken = new Set([work.begun.fileName.toLowerCase()]);
  for (const { into, files } of made)
    for (const { file, name } of files) {
      let free = name;
      for (let n = 2; taken.has(free.toLowerCase()); n++) free = name.replace(/(\.[^.]+)$/, ` ${n}$1`);
      taken.add(free.toLowerCase());
      await copyFile(join(into, file), join(mine, free));
    }
}
