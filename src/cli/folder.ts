import { momentOf } from '../lib/core/numbers/day';
import { createHash } from 'node:crypto';
import { mkdir, mkdtemp, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { emptyDocket, looksAtPages, sourcesNamed, type Docket } from '../lib/core/docket/docket';
import { DocketError, readDocket as readDocketOf } from '../lib/core/docket/readDocket';
import {
  docketOfFile,
  readRecipe,
  RecipeError,
  type Recipe,
  type RecipeValues,
} from '../lib/core/docket/recipe';
import type { Step } from '../lib/core/docket/steps';
import { outputSchema, type Output } from '../lib/core/handover/outputs';
import { possibleKinds } from '../lib/core/handover/outputs';
import { LengthError, parseLength } from '../lib/core/measure/parseLength';
import { workOut } from '../lib/core/checks';
import type { Picture, Survey } from '../lib/core/pages/survey';
import { surveyPdf } from '../lib/pdf/survey';
import { PdfError } from '../lib/pdf/pdfError';
import { PictureError } from '../lib/raster/picture';
import { asPdf } from '../lib/make/asPdf';
import { freeIn, Growing, PLACES, WHY } from '../lib/server/dropPlace';
import { checkFiles } from '../lib/make/checkFiles';
import { handOver } from '../lib/make/handOver';
import { HandOverError } from '../lib/make/handOverError';
import { measureSource } from '../lib/raster/measureSource';
import { sayTrouble } from '../lib/words/troubles';
import { sayFinding } from '../lib/words/checks';
import { outputWords } from '../lib/words/outputs';

const HELP = `folder survey FILE…                                  prints the facts of each file as JSON
folder make DOCKET.json FILE… --out FOLDER           carries the docket out and writes its outputs
       [--despite REASON]                            they are to go out although a finding says stop: exit status 0
folder recipe RECIPE.json FILE… --out FOLDER         works each file by the recipe and writes what it hands over
       [--set name=value]…                           says what the recipe asks for; lengths with their unit: off="12 mm"
       [--with FILE]…                                a file that its steps use: a stamp, an overlay
folder split FILE --by HOW --out FOLDER              writes the pages of a file as several
       HOW: every=10, bookmarks, bookmarks=2, places=1,9,21, faces, faces=reverse, size=5 (MB)
       [--name PATTERN]                              with {source}, {part}, {from}, {to}, {size}, {date}
folder watch FOLDER --recipe RECIPE.json [--once]    works what is put there; results in done, what cannot be worked in failed
folder template DOCKET.json [FILE…] --out FOLDER     writes the blank template of a folded leaflet
       --json                                        says what was written as JSON

Exit status: 0 done; 1 the work failed, or a finding says stop: a sentence says why, and what was written is not to go out;
2 the call was wrong.`;

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
    await COMMANDS[call.command](call);
    return 0;
  } catch (error) {
    console.error(error instanceof Failure ? error.message : sayFault(error));
    return 1;
  }
}

/** A fault of the program itself, in one line. */
const sayFault = (error: unknown): string =>
  `Folder met a fault of its own: ${String(error).split('\n')[0]!.slice(0, 300)}. Nothing more was written.`;

interface Call {
  command: keyof typeof COMMANDS;
  /** What stands after the command. */
  files: string[];
  out: string;
  recipe: string;
  by: string;
  name: string;
  set: string[];
  json: boolean;
  once: boolean;
  /** Why outputs go out although a finding says stop. */
  despite: string;
  /** Files that the steps of a recipe use. */
  with: string[];
}

const COMMANDS = {
  survey: ({ files }: Call) => survey(files),
  make: (call: Call) => make(call),
  recipe: (call: Call) => carryOut(call),
  split: (call: Call) => splitFile(call),
  watch: (call: Call) => watch(call),
  template: ({ files: [docket, ...files], out, json }: Call) => template(docket!, files, out, json),
};
/** What each command needs besides files: how many of those at least, and which options. */
const NEEDS: Record<
  keyof typeof COMMANDS,
  { files: number; options: readonly string[]; may?: readonly string[] }
> = {
  survey: { files: 1, options: [] },
  make: { files: 1, options: ['out'], may: ['json', 'despite'] },
  recipe: { files: 2, options: ['out'], may: ['set', 'with', 'json'] },
  split: { files: 1, options: ['out', 'by'], may: ['name', 'json'] },
  watch: { files: 1, options: ['recipe'], may: ['set', 'with', 'once', 'json'] },
  template: { files: 1, options: ['out'], may: ['json'] },
};

function readCall(args: string[]): Call | { command: 'help' } | undefined {
  try {
    const { values, positionals } = parseArgs({
      args,
      allowPositionals: true,
      options: {
        out: { type: 'string' },
        recipe: { type: 'string' },
        by: { type: 'string' },
        name: { type: 'string' },
        set: { type: 'string', multiple: true },
        with: { type: 'string', multiple: true },
        despite: { type: 'string' },
        json: { type: 'boolean' },
        once: { type: 'boolean' },
        help: { type: 'boolean', short: 'h' },
      },
    });
    const [command, ...files] = positionals;
    if (values.help || command === 'help') return { command: 'help' };
    if (!command || !Object.hasOwn(NEEDS, command)) return undefined;
    const { files: least, options, may = [] } = NEEDS[command as keyof typeof NEEDS];
    const given = Object.keys(values);
    if (files.length < least || options.some((option) => !given.includes(option))) return undefined;
    if (given.some((option) => !options.includes(option) && !may.includes(option))) return undefined;
    const { out = '', recipe = '', by = '', name = '', set = [], json = false, once = false } = values;
    const { despite = '', with: more = [] } = values;
    return {
      command: command as keyof typeof COMMANDS,
      files,
      out,
      recipe,
      by,
      name,
      set,
      json,
      once,
      despite,
      with: more,
    };
  } catch {
    return undefined;
  }
}

/** Says what was written: a path a line, or all as JSON. */
function report(
  results: readonly { source?: string; written: string[]; findings: string[] }[],
  json: boolean,
): void {
  if (json) process.stdout.write(`${JSON.stringify(results, null, 2)}\n`);
  else for (const { written } of results) for (const path of written) console.log(path);
}

/** Says how far the work is, where somebody sits before it. */
function progress(what: string): (done: number, total: number) => void {
  if (!process.stderr.isTTY) return () => undefined;
  return (done, total) =>
    process.stderr.write(`\r${what}: ${done} of ${total}\x1b[K${done === total ? '\n' : ''}`);
}

async function survey(files: string[]): Promise<void> {
  const surveys: object[] = [];
  let failed = 0;
  for (const file of files)
    try {
      surveys.push({ file, sha256: sha256(await read(file)), ...(await surveyOf(file, true)) });
    } catch (error) {
      if (files.length === 1) throw error;
      const said = error instanceof Failure ? error.message : `${file}: ${sayFault(error)}`;
      console.error(said);
      failed++;
    }
  process.stdout.write(`${JSON.stringify(files.length === 1 ? surveys[0] : surveys, null, 2)}\n`);
  if (failed) throw new Failure(`${failed} of ${files.length} files could not be surveyed.`);
}

async function make({ files: [docketFile, ...files], out, json, despite }: Call): Promise<void> {
  const docket = await readDocket(docketFile!);
  const made = await handOverDocket(docket, await given(files), out);
  report([made], json);
  if (made.stops && !despite.trim())
    throw new Failure(
      `${made.stops === 1 ? 'A finding says' : `${made.stops} findings say`} stop, so what was written is not to go out. Mend the job, or say with --despite why it goes out all the same.`,
    );
}

interface GivenFile {
  name: string;
  file: string;
  hash: string;
}
const given = (files: readonly string[]): Promise<GivenFile[]> =>
  Promise.all(files.map(async (file) => ({ name: basename(file), file, hash: sha256(await read(file)) })));

/** Works a docket out over files and writes what it hands over to a folder; with `strict`, not while a finding says stop. */
async function handOverDocket(
  docket: Docket,
  files: readonly GivenFile[],
  out: string,
  strict = false,
): Promise<{ written: string[]; findings: string[]; stops: number }> {
  const surveys: Record<string, Survey> = {};
  const fileOf: Record<string, string> = {};
  const measured = looksAtPages(docket);
  // A file is known by its contents; failing that, by the name that the docket has for it.
  for (const { source, name, off } of sourcesNamed(docket)) {
    const match = files.find(({ hash }) => hash === source) ?? files.find((file) => file.name === name);
    if (!match && off) continue;
    if (!match) throw new Failure(sayTrouble({ code: 'source-missing', data: { name } }));
    surveys[source] = await surveyOf(match.file, measured);
    fileOf[source] = match.file;
  }
  const work = workOut(docket, surveys);
  const findings = work.findings.map((finding) => {
    const { title, text } = sayFinding(finding, docket.unit);
    return `${finding.level}: ${title}. ${text}`;
  });
  for (const said of findings) console.error(said);
  const stops = work.findings.filter(({ level }) => level === 'stop').length;
  if (strict && stops) throw new Failure('A finding says stop, so nothing was handed over.');
  await mkdir(out, { recursive: true });
  const written: string[] = [];
  const possible = possibleKinds(work);
  for (const output of docket.outputs) {
    if (!possible.includes(output.kind)) {
      console.error(
        `note: this job gives no ${outputWords(output.kind).name.toLowerCase()}, so none was made.`,
      );
      continue;
    }
    written.push(...(await writeFiles(out, docket, surveys, output, fileOf)));
  }
  return { written, findings, stops };
}

/** Works each file by a recipe. */
async function carryOut({ files: [recipeFile, ...files], out, set, json, with: more }: Call): Promise<void> {
  const recipe = await readRecipeFile(recipeFile!);
  const values = valuesOf(recipe, set);
  const used = await given(more);
  const results = [];
  for (const file of await given(files))
    results.push({ source: file.file, ...(await workFile(recipe, values, [file, ...used], out)) });
  report(results, json);
}

/** Works the first of the files by a recipe, whose steps may use the others. */
function workFile(recipe: Recipe, values: RecipeValues, files: readonly GivenFile[], out: string) {
  try {
    const [file] = files;
    const docket = docketOfFile({ source: file!.hash, name: file!.name }, recipe, values);
    return handOverDocket(docket, files, out, true);
  } catch (error) {
    if (error instanceof RecipeError) throw new Failure(sayTrouble({ code: error.code, data: error.data }));
    throw error;
  }
}

async function readRecipeFile(file: string): Promise<Recipe> {
  try {
    return readRecipe(JSON.parse((await read(file)).toString('utf8')));
  } catch (error) {
    if (error instanceof RecipeError)
      throw new Failure(`${file}: ${sayTrouble({ code: error.code, data: error.data })}`);
    if (error instanceof SyntaxError)
      throw new Failure(
        `${file}: ${sayTrouble({ code: 'recipe-invalid', data: { reason: 'it is not JSON' } })}`,
      );
    throw error;
  }
}

/** What was said with `--set`, as the recipe wants it. */
function valuesOf({ asks }: Recipe, said: readonly string[]): RecipeValues {
  return Object.fromEntries(
    said.map((each): [string, string | number] => {
      const [, name = '', text = ''] = /^([^=]*)=(.*)$/s.exec(each) ?? [];
      const ask = asks.find((one) => one.name === name);
      if (!ask) throw new Failure(sayTrouble({ code: 'value-unknown', data: { name: name || each } }));
      const wrong = (reason: string) =>
        new Failure(sayTrouble({ code: 'value-wrong', data: { name, label: ask.label, reason } }));
      if (ask.kind === 'length')
        try {
          return [name, parseLength(text, 'mm')];
        } catch (error) {
          if (error instanceof LengthError) throw wrong(`“${text}” is no length`);
          throw error;
        }
      if (ask.kind !== 'number') return [name, text];
      if (!text.trim() || !Number.isFinite(Number(text))) throw wrong(`“${text}” is no number`);
      return [name, Number(text)];
    }),
  );
}

async function splitFile({ files: [file], by, name, out, json }: Call): Promise<void> {
  const [source] = await given([file!]);
  const step: Step = {
    id: 't',
    kind: 'take-in',
    source: source!.hash,
    name: source!.name,
    where: { at: 'end' },
  };
  const output = outputSchema.safeParse({
    kind: 'pages',
    crop: 'bleed',
    split: readSplit(by),
    name: name || '{source} {part}',
  });
  if (!output.success) throw new Failure(`“${by}” is no way to split. ${HELP.split('\n')[6]!.trim()}`);
  const docket: Docket = {
    ...emptyDocket(source!.name.slice(0, 200)),
    steps: [step],
    scheme: { kind: 'none' },
    outputs: [output.data],
  };
  report([{ source: file!, ...(await handOverDocket(docket, [source!], out)) }], json);
}

/** What stands after `--by`, as a split has it. */
function readSplit(said: string): unknown {
  const [by, value] = said.split(/=(.*)/s) as [string, string | undefined];
  switch (by) {
    case 'every':
      return { by, count: Number(value) };
    case 'bookmarks':
      return { by, level: value === undefined ? 0 : Number(value) - 1 };
    case 'places':
      return { by, at: value };
    case 'size':
      return { by, mb: Number(value) };
    case 'faces':
      return { by, ...(value === 'reverse' ? { reverse: true } : {}) };
    default:
      return { by };
  }
}

const LOOK_EVERY_MS = 300;

/** Works what is put in a folder, one file after the other, until it is stopped; with `--once`, what is there. */
async function watch({
  files: [folder],
  recipe: recipeFile,
  set,
  once,
  json,
  with: more,
}: Call): Promise<void> {
  const recipe = await readRecipeFile(recipeFile);
  const values = valuesOf(recipe, set);
  const places = { done: join(folder!, PLACES.done), failed: join(folder!, PLACES.failed) };
  try {
    for (const place of Object.values(places)) await mkdir(place, { recursive: true });
  } catch {
    throw new Failure(`${folder} cannot be written. Check its name and that you may write there.`);
  }
  const growing = new Growing();
  const files = async () =>
    (await readdir(folder!, { withFileTypes: true }))
      .filter((entry) => entry.isFile() && !entry.name.startsWith('.'))
      .map(({ name }) => name);
  for (;;) {
    const here = await files();
    for (const name of here) {
      const path = join(folder!, name);
      if (!growing.isQuiet(path, await stat(path))) continue;
      const stem = await freeIn(Object.values(places), name.replace(/\.[^.]+$/, '') || name);
      try {
        const out = join(places.done, stem);
        const result = await workFile(recipe, values, await given([path, ...more]), out);
        await rename(path, join(out, name));
        report([{ source: path, ...result }], json);
      } catch (error) {
        if (!(error instanceof Failure)) throw error;
        await rm(join(places.done, stem), { recursive: true, force: true });
        await mkdir(join(places.failed, stem));
        await rename(path, join(places.failed, stem, name));
        await writeFile(join(places.failed, stem, WHY), `${name}\n\n${error.message}\n`);
        console.error(`${name}: ${error.message}`);
      }
    }
    if (once && !(await files()).length) return;
    await new Promise((soon) => setTimeout(soon, LOOK_EVERY_MS));
  }
}

async function template(docketFile: string, files: string[], out: string, json: boolean): Promise<void> {
  const docket = await readDocket(docketFile);
  report(
    [await handOverDocket({ ...docket, outputs: [{ kind: 'template' }] }, await given(files), out)],
    json,
  );
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
    const onProgress = progress(output.kind);
    const made = await handOver(docket, output, {
      surveys,
      read,
      folder,
      at: momentOf(process.env.SOURCE_DATE_EPOCH),
      onProgress,
    });
    await checkFiles(docket, output, made, { surveys, folder });
    const paths = made.map(({ name }) => join(out, name));
    for (const [n, { file }] of made.entries()) await rename(join(folder, file), paths[n]!);
    return paths;
  } catch (error) {
    if (error instanceof HandOverError) throw new Failure(sayTrouble(error.trouble));
    if (error instanceof PdfError) throw new Failure(sayTrouble(error));
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
  try {
    return readDocketOf(json);
  } catch (error) {
    if (error instanceof DocketError) throw new Failure(`${file}: ${sayTrouble(error)}`);
    throw error;
  }
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
