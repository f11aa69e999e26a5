/**
 * Manuals that come as PDF in Debian's documentation packages: object streams, outlines, thousands of links, many fonts, notes as
 * vectors, two forms, scans. Each is surveyed and made into pages and sheets as a worker does it; poppler says whether every page and
 * every letter is there and whether they look as they did, qpdf whether the files are sound, and how long a plain rewrite
 * takes. Exit status 1 where one of them says no.
 * Run by hand, where packages can be fetched: npm run build && npm run trial:documents
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  existsSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join, resolve } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { makeOutput } from '../bench/fenced';
import { emptyDocket } from '../src/lib/core/docket/docket';
import type { Output } from '../src/lib/core/handover/outputs';
import { contains, heightOf, widthOf } from '../src/lib/core/measure/box';
import { TOLERANCES } from '../src/lib/core/measure/tolerances';
import { mm } from '../src/lib/core/measure/unit';
import { surveySchema, type Survey } from '../src/lib/core/model/survey';
import { PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import { dismissStandby, FenceError, keepReady, runInFence } from '../src/lib/server/fence';
import { openToFence } from '../src/lib/server/fenceUser';
import { sh } from './running';

process.env.FOLDER_BUILT = '1';
const PACKAGES = [
  'asymptote-doc',
  'bash-doc',
  'cups-filters',
  'debian-policy',
  'debian-reference-en',
  'gnuplot-doc',
  'golang-github-jung-kurt-gofpdf-dev',
  'installation-guide-amd64',
  'lilypond-doc-pdf',
  'lure-of-the-temptress',
  'maint-guide',
  'octave-doc',
  'pari-doc',
  'r-doc-pdf',
];
/** Files smaller than this are figures; sheets of longer ones are written and not proved. */
const [LEAST_BYTES, MOST_PROVED] = [30_000, 150];
/** Longer ones are surveyed in a process that stands by, too, which is warm after so long. */
const [LONG_BYTES, READY_MS] = [5_000_000, 6000];
/** So many pages of each are drawn. */
const MOST_DRAWN = 40;

const store = resolve('.folder', 'documents');
const work = mkdtempSync(join(tmpdir(), 'folder-documents-'));
await openToFence(work);

/** The PDFs of a package, unpacked once. */
function documentsOf(name: string): string[] {
  const folder = join(store, name);
  if (!existsSync(folder)) {
    mkdirSync(folder, { recursive: true });
    const { status } = spawnSync('apt-get', ['download', name], { cwd: folder, stdio: 'ignore' });
    if (status !== 0) return [];
    for (const file of readdirSync(folder)) sh('dpkg-deb', '-x', join(folder, file), folder);
  }
  const all = readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((file) => join(folder, file));
  return all
    .filter((path) => /\.pdf(\.gz)?$/i.test(path) && !lstatSync(path).isSymbolicLink())
    .filter((path) => statSync(path).isFile() && statSync(path).size > LEAST_BYTES)
    .sort();
}

/**
 * The letters of a file, without white space, of each page by itself: as poppler reads them, or, where pages are cropped, those that
 * MuPDF sees within them.
 */
const lettersOf = (file: string, cropped: boolean): string[] =>
  (cropped ? sh('mutool', 'draw', '-q', '-F', 'txt', file) : sh('pdftotext', '-raw', file, '-'))
    .split('\f')
    .map((page) => page.replace(/\s+/g, ''));
const counted = (pages: readonly string[]): Map<string, number> => {
  const counts = new Map<string, number>();
  for (const page of pages) for (const letter of page) counts.set(letter, (counts.get(letter) ?? 0) + 1);
  return counts;
};

/** The first pages of a file as poppler draws them, small. */
function drawn(file: string): Buffer[] {
  const folder = mkdtempSync(join(work, 'drawn-'));
  sh('pdftoppm', '-r', '24', '-gray', '-cropbox', '-l', String(MOST_DRAWN), file, join(folder, 'page'));
  const pages = readdirSync(folder)
    .sort()
    .map((name) => readFileSync(join(folder, name)));
  rmSync(folder, { recursive: true });
  return pages;
}
/** Dots that differ by more than this are of something else: where sizes are rounded otherwise, all of a page moves by a part of a dot. */
const [DIFFERS, FEW] = [96, 4];
const isOther = (one: Buffer, other: Buffer): boolean =>
  one.length !== other.length ||
  one.reduce((sum, light, n) => sum + (Math.abs(light - other[n]!) > DIFFERS ? 1 : 0), 0) > FEW;

const seconds = (work: () => unknown): number => {
  const from = performance.now();
  work();
  return (performance.now() - from) / 1000;
};

let [files, wrong] = [0, 0];
const say = (file: string, what: string): void => {
  wrong++;
  console.log(`WRONG ${file}: ${what}`);
};

async function look(path: string): Promise<void> {
  const name = basename(path);
  const bytes = path.endsWith('.gz') ? gunzipSync(readFileSync(path)) : readFileSync(path);
  const source = createHash('sha256').update(bytes).digest('hex');
  const [file, out, plain] = ['source.pdf', 'survey.json', 'plain.pdf'].map((each) => join(work, each));
  writeFileSync(file!, bytes);
  rmSync(plain!, { force: true });
  const surveyIn = async (): Promise<number> => {
    const from = performance.now();
    await runInFence('surveyFile', { file, out, pdf: plain }, { seconds: 300, mb: 4096, once: true });
    return (performance.now() - from) / 1000;
  };
  const surveyed = await surveyIn();
  let ready = '';
  if (bytes.length > LONG_BYTES) {
    keepReady('surveyFile');
    await new Promise((done) => setTimeout(done, READY_MS));
    ready = ` (${(await surveyIn()).toFixed(2)} s in one that stands by; pdfinfo -box ${seconds(() => sh('pdfinfo', '-box', '-l', '99999', file!)).toFixed(2)} s)`;
    dismissStandby();
  }
  const survey: Survey = surveySchema.parse(JSON.parse(readFileSync(out!, 'utf8')));
  const pages = Number(/^Pages:\s+(\d+)/m.exec(sh('pdfinfo', file!))?.[1]);
  if (survey.pages.length !== pages) say(name, `${survey.pages.length} pages, poppler counts ${pages}`);
  // Two of the largest pages side by side, with room for marks.
  const [width, height] = [widthOf, heightOf].map((side) =>
    Math.max(...survey.pages.map(({ boxes }) => side(boxes.trim))),
  );
  const stock = { width: 2 * width! + mm(40), height: height! + mm(40) };
  const sound = spawnSync('qpdf', ['--check', file!]).status === 0;
  const lay = async (output: Output, prove: boolean) => {
    const docket = {
      ...emptyDocket(name),
      steps: [{ id: 't', kind: 'take-in' as const, source, name, where: { at: 'end' as const } }],
      scheme: { ...PLAIN_SCHEMES.stitched, stock },
      prove,
    };
    const given = existsSync(plain!) ? plain! : file!;
    const task = { docket, output, surveys: { [source]: survey }, files: { [source]: given }, folder: work };
    const made = await makeOutput({ ...task, at: new Date(0).toISOString() }, false);
    const { status, stderr } = spawnSync('qpdf', ['--check', join(work, '1')], { encoding: 'utf8' });
    if (status !== 0 && sound) say(name, `${output.kind}: qpdf --check: ${stderr.slice(0, 300)}`);
    return made;
  };
  const cropped = survey.pages.some(({ boxes: { crop, media } }) => !contains(crop, media, TOLERANCES.place));
  const letters = lettersOf(file!, cropped);
  const asPages = await lay({ kind: 'pages', crop: 'trim' }, false);
  const there = lettersOf(join(work, '1'), cropped);
  const other = letters.findIndex((page, n) => page !== there[n]);
  if (other >= 0) say(name, `page ${other + 1} of the pages has other letters`);
  const [was, is] = [drawn(file!), drawn(join(work, '1'))];
  const unlike = was.findIndex((page, n) => !is[n] || isOther(page, is[n]));
  if (unlike >= 0) say(name, `page ${unlike + 1} of the pages looks otherwise`);
  const asSheets = await lay({ kind: 'sheets' }, false);
  const [had, has] = [counted(letters), counted(lettersOf(join(work, '1'), cropped))];
  const less = [...had].filter(([letter, count]) => (has.get(letter) ?? 0) < count).map(([letter]) => letter);
  if (less.length) say(name, `sheets lack some of the letters ${less.slice(0, 20).join(' ')}`);
  // Smaller pages among larger ones lie with white paper beside them, which a proof rightly finds.
  const alike = survey.pages.every(
    ({ boxes: { trim } }) =>
      Math.abs(widthOf(trim) - width!) < TOLERANCES.place &&
      Math.abs(heightOf(trim) - height!) < TOLERANCES.place,
  );
  if (alike && pages <= MOST_PROVED)
    await lay({ kind: 'sheets' }, true).catch((error: unknown) => {
      say(
        name,
        `its proof does not hold: ${error instanceof FenceError ? JSON.stringify(error.trouble).slice(0, 300) : String(error)}`,
      );
    });
  // Of a file with an object out of its place it warns, whether any page needs that or not.
  const rewrite = seconds(() =>
    spawnSync('qpdf', ['--object-streams=disable', file!, join(work, 'rewritten.pdf')]),
  );
  files++;
  console.log(
    `${name}: ${pages} pages, ${(bytes.length / 1e6).toFixed(1)} MB; survey ${surveyed.toFixed(2)} s${ready}, pages ${asPages.seconds.toFixed(2)} s, ${asPages.mb.toFixed(0)} MB, sheets ${asSheets.seconds.toFixed(2)} s, ${asSheets.mb.toFixed(0)} MB, each with the start of a process; qpdf ${rewrite.toFixed(2)} s`,
  );
}

const asked = process.argv.slice(2);
for (const name of asked.length ? asked : PACKAGES) {
  const found = documentsOf(name);
  if (!found.length) console.log(`${name}: no PDF could be had`);
  for (const path of found)
    await look(path).catch((error: unknown) => {
      say(basename(path), error instanceof FenceError ? JSON.stringify(error.trouble) : String(error));
    });
}
rmSync(work, { recursive: true });
console.log(
  wrong ? `${wrong} things are wrong with ${files} files` : `${files} files: every page, every letter`,
);
process.exit(wrong ? 1 : 0);
