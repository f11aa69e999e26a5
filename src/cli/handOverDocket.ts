import { mkdir, mkdtemp, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { workOut } from '../lib/core/checks';
import { looksAtPages, sourcesNamed, type Docket } from '../lib/core/docket/docket';
import { possibleKinds, type Output } from '../lib/core/handover/outputs';
import { momentOf } from '../lib/core/numbers/day';
import type { Survey } from '../lib/core/model/survey';
import { checkFiles } from '../lib/make/checkFiles';
import { handOver } from '../lib/make/handOver';
import { HandOverError } from '../lib/make/handOverError';
import { PdfError } from '../lib/pdf/objects/pdfError';
import { sayFinding } from '../lib/words/checks';
import { outputWords } from '../lib/words/outputs';
import { sayTrouble } from '../lib/words/troubles';
import { Failure, type Io } from './call';
import { readPdf, surveyOf, type GivenFile } from './files';
import { progress } from './report';
import { entryAt } from '../lib/core/entries';

/** The sources of a docket among files that were named: what their surveys say, and their bytes. */
export interface Sources {
  surveys: Record<string, Survey>;
  read: (source: string) => Promise<Uint8Array>;
}

/** Finds the sources of a docket. Throws Failure if one that it uses is not among the files. */
export async function sourcesFor(docket: Docket, files: readonly GivenFile[]): Promise<Sources> {
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
  return { surveys, read: async (source) => (await readPdf(fileOf[source]!)).bytes };
}

/** Works a docket out over files and writes what it hands over to a folder; with `strict`, not while a finding says stop. */
export async function handOverDocket(
  docket: Docket,
  files: readonly GivenFile[],
  { out, io, strict = false, despite = '' }: { out: string; io: Io; strict?: boolean; despite?: string },
): Promise<{ written: string[]; findings: string[]; stops: number }> {
  const { surveys, read } = await sourcesFor(docket, files);
  const work = workOut(docket, surveys);
  const findings = work.findings.map((finding) => {
    const { title, text } = sayFinding(finding, docket.unit);
    return `${finding.level}: ${title}. ${text}`;
  });
  for (const said of findings) io.err(`${said}\n`);
  const stops = work.findings.filter(({ level }) => level === 'stop').length;
  if (strict && stops) throw new Failure('A finding says stop, so nothing was handed over.');
  await mkdir(out, { recursive: true });
  const written: string[] = [];
  const possible = possibleKinds(work);
  for (const output of docket.outputs) {
    if (!possible.includes(output.kind)) {
      const { name } = outputWords(output.kind);
      io.err(`note: this job gives no ${name.toLowerCase()}, so none was made.\n`);
      continue;
    }
    written.push(...(await writeFiles(out, docket, { surveys, read }, output, { io, despite })));
  }
  return { written, findings, stops };
}

/** Makes the files of an output, and puts them in their place once all are written and checked. */
async function writeFiles(
  out: string,
  docket: Docket,
  { surveys, read }: Sources,
  output: Output,
  { io, despite }: { io: Io; despite: string },
): Promise<string[]> {
  const folder = await mkdtemp(join(out, '.making-'));
  try {
    const onProgress = progress(output.kind, io);
    const made = await handOver(docket, output, {
      surveys,
      read,
      folder,
      at: momentOf(process.env.SOURCE_DATE_EPOCH),
      onProgress,
      ...(despite.trim() ? { despite: despite.trim() } : {}),
    });
    await checkFiles(docket, output, made, { surveys, folder });
    const paths = made.map(({ name }) => join(out, name));
    for (const [n, { file }] of made.entries()) await rename(join(folder, file), entryAt(paths, n));
    return paths;
  } catch (error) {
    if (error instanceof HandOverError) throw new Failure(sayTrouble(error.trouble));
    if (error instanceof PdfError) throw new Failure(sayTrouble(error));
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
