import { createHash } from 'node:crypto';
import { mkdir, mkdtemp, readFile, rename, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { prettifyError } from 'zod';
import { docketSchema, type Docket } from '../lib/core/docket/docket';
import type { Output } from '../lib/core/handover/output';
import { workOut } from '../lib/core/checks';
import type { Picture, Survey } from '../lib/core/pages/survey';
import { surveyPdf } from '../lib/pdf/survey';
import { PdfError } from '../lib/pdf/pdfError';
import { PictureError } from '../lib/raster/picture';
import { asPdf } from '../lib/server/fenced/asPdf';
import { checkFiles, handOver } from '../lib/server/fenced/handOver';
import { HandOverError } from '../lib/server/fenced/handOverError';
import { measureSource } from '../lib/raster/measureSource';
import { sayTrouble } from '../lib/words/errors';
import { sayFinding } from '../lib/words/findings';

const HELP = `folder survey FILE…                          prints the facts of each PDF as JSON
folder make DOCKET.json FILE… --out FOLDER   carries the docket out and writes its outputs

Exit status: 0 done; 1 the work failed, one sentence says why; 2 the call was wrong.`;

/** The work failed for a reason worth a sentence. */
class Failure extends Error {}

async function main(args: string[]): Promise<number> {
  const call = readCall(args);
  if (!call) {
    console.error(HELP);
    return 2;
  }
  if (call.command === 'help') {
    console.log(HELP);
    return 0;
  }
  try {
    await (call.command === 'survey' ? survey(call.files) : make(call.docket, call.files, call.out));
    return 0;
  } catch (error) {
    if (!(error instanceof Failure)) throw error;
    console.error(error.message);
    return 1;
  }
}

type Call =
  | { command: 'help' }
  | { command: 'survey'; files: string[] }
  | { command: 'make'; docket: string; files: string[]; out: string };

function readCall(args: string[]): Call | undefined {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: { out: { type: 'string' }, help: { type: 'boolean', short: 'h' } },
    });
    const [command, ...files] = positionals;
    if (values.help || command === 'help') return { command: 'help' };
    if (command === 'survey' && files.length && !values.out) return { command, files };
    const [docket, ...sources] = files;
    if (command === 'make' && docket && values.out)
      return { command, docket, files: sources, out: values.out };
    return undefined;
  } catch {
    return undefined;
  }
}

async function survey(files: string[]): Promise<void> {
  const surveys = [];
  for (const file of files) {
    surveys.push({
      file,
      sha256: sha256(await read(file)),
      ...(await surveyOf(file, true)),
    });
  }
  process.stdout.write(`${JSON.stringify(surveys.length === 1 ? surveys[0] : surveys, null, 2)}\n`);
}

async function make(docketFile: string, files: string[], out: string): Promise<void> {
  const docket = await readDocket(docketFile);
  const given = await Promise.all(
    files.map(async (file) => ({ name: basename(file), file, hash: sha256(await read(file)) })),
  );
  const takeIns = docket.steps.flatMap((step) => (step.kind === 'take-in' && !step.off ? [step] : []));
  const toInk = docket.steps.some((step) => step.kind === 'crop' && step.cut.by === 'ink');
  const surveys: Record<string, Survey> = {};
  const fileOf: Record<string, string> = {};
  // A file is known by its contents; failing that, by the name that the docket has for it.
  for (const step of takeIns) {
    const match =
      given.find(({ hash }) => hash === step.source) ?? given.find(({ name }) => name === step.name);
    if (!match) throw new Failure(sayTrouble({ code: 'source-missing', data: { name: step.name } }));
    surveys[step.source] ??= await surveyOf(match.file, toInk);
    fileOf[step.source] = match.file;
  }
  const work = workOut(docket, surveys);
  for (const finding of work.findings) {
    const { title, text } = sayFinding(finding, docket.unit);
    console.error(`${finding.level}: ${title}. ${text}`);
  }
  await mkdir(out, { recursive: true });
  for (const output of docket.outputs) {
    if (output.kind === 'sheets' && docket.scheme.kind === 'none') {
      console.error('note: these pages go on no sheets, so no sheet PDF was made.');
      continue;
    }
    for (const path of await writeFiles(out, docket, surveys, output, fileOf)) console.log(path);
  }
}

/** Makes the files of an output, and puts them in their place once all are written and checked. */
async function writeFiles(
  out: string,
  docket: Docket,
  surveys: Record<string, Survey>,
  output: Output,
  fileOf: Record<string, string>,
): Promise<string[]> {
  const folder = await mkdtemp(join(out, '.making-'));
  try {
    const read = async (source: string) => (await readPdf(fileOf[source]!)).bytes;
    const made = await handOver(docket, output, { surveys, read, folder, at: new Date() });
    await checkFiles(docket, output, made, { surveys, folder });
    const paths = made.map(({ name }) => join(out, name));
    for (const [n, { file }] of made.entries()) await rename(join(folder, file), paths[n]!);
    return paths;
  } catch (error) {
    if (error instanceof PdfError || error instanceof HandOverError) throw new Failure(sayTrouble(error));
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The survey of a file, measured where the docket needs to know what is drawn. */
async function surveyOf(file: string, measured: boolean): Promise<Survey> {
  const { bytes, picture } = await readPdf(file);
  try {
    const survey = { ...(await surveyPdf(bytes)), ...(picture ? { picture } : {}) };
    return measured ? await measureSource(bytes, survey) : survey;
  } catch (error) {
    if (error instanceof PdfError) throw new Failure(`${file}: ${sayTrouble(error)}`);
    throw error;
  }
}

/** The PDF in a file, or made of the picture or drawing in it. */
async function readPdf(file: string): Promise<{ bytes: Uint8Array; picture?: Picture }> {
  const bytes = await read(file);
  try {
    const { pdf, ...made } = await asPdf(bytes);
    return { bytes: pdf, ...made };
  } catch (error) {
    if (error instanceof PictureError || error instanceof PdfError)
      throw new Failure(`${file}: ${sayTrouble(error)}`);
    throw error;
  }
}

async function readDocket(file: string): Promise<Docket> {
  let json: unknown;
  try {
    json = JSON.parse((await read(file)).toString('utf8'));
  } catch (error) {
    if (error instanceof Failure) throw error;
    throw new Failure(
      `${file}: ${sayTrouble({ code: 'docket-invalid', data: { reason: 'it is not JSON' } })}`,
    );
  }
  const docket = docketSchema.safeParse(json);
  if (docket.success) return docket.data;
  throw new Failure(
    `${file}: ${sayTrouble({ code: 'docket-invalid', data: { reason: prettifyError(docket.error).split('\n').join(' ') } })}`,
  );
}

async function read(file: string): Promise<Buffer> {
  try {
    return await readFile(file);
  } catch {
    throw new Failure(`${file} cannot be opened. Check its name and that you may read it.`);
  }
}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

process.exitCode = await main(process.argv.slice(2));
