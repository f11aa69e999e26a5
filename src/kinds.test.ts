import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, type Plugin } from 'esbuild';
import prettier from 'prettier';
import ts from 'typescript';
import { describe, expect, test } from 'vitest';
import { FAMILIES, kindsFile, type Family } from '../scripts/lib/kindsFile';

const ROOT = resolve(import.meta.dirname, '..');

describe('the lists of files of every kind are those of the tuples in core: npm run kinds writes them', () => {
  test.each(FAMILIES)('$file', async (family) => {
    const options = await prettier.resolveConfig(join(ROOT, family.file));
    const made = await prettier.format(kindsFile(family, existsSync), { ...options, filepath: family.file });
    expect(readFileSync(join(ROOT, family.file), 'utf8')).toBe(made);
  });
});

// A made-up kind of each family: one record, its words, and for an output how it is written. Nothing else is touched but one
// place in the tuple of its family; the lists are written from that.

/** Made-up records, by the index whose tuple each stands in, and what stands there already. */
const RECORDS: Record<string, { before: RegExp; file: string; text: string }> = {
  'core/docket/steps': {
    before: /STEP_KINDS = \[/,
    file: 'probe',
    text: `import * as z from 'zod';
import { lengthWithin } from '../../measure/lengthSchema';
import { selectionSchema } from '../../model/selection';
import { defineStep } from '../stepKind';
import { changePages, stepBase } from './base';
export const probe = defineStep(z.object({ ...stepBase, kind: z.literal('probe'), pages: selectionSchema,
  by: lengthWithin([0, 99]), often: z.number().int().min(1).max(9), how: z.enum(['thick', 'thin']) }))({
  kind: 'probe', on: 'pages', key: '$', button: true,
  fresh: ({ chosen = 'all' }) => ({ kind: 'probe', pages: chosen, by: 12, often: 2, how: 'thin' }),
  apply: (list, step) => changePages(list, step.pages, (page) => ({ ...page, words: step.how + step.often })),
  sources: () => [{ source: 'f'.repeat(64), name: 'probe.pdf' }],
  looksAtPages: () => true,
});`,
  },
  'core/sheets/schemes': {
    before: /SCHEMES = \[/,
    file: 'probe',
    text: `import * as z from 'zod';
import { marksSchema } from '../marks';
import { planSingle } from '../spreads';
import { defineScheme } from './schemeKind';
export const probe = defineScheme(z.object({ kind: z.literal('probe'), marks: marksSchema, tall: z.boolean() }))({
  kind: 'probe', makes: 'nothing', plain: { kind: 'probe', marks: { trim: true, fold: false, probe: true }, tall: true },
  plan: planSingle,
});`,
  },
  'core/handover/outputs': {
    before: /OUTPUTS = \[/,
    file: 'probe',
    text: `import * as z from 'zod';
import { cut } from '../parts';
import { outputBase } from '../split';
import { defineOutput } from './outputKind';
export const probe = defineOutput(z.object({ ...outputBase, kind: z.literal('probe'), loud: z.boolean() }))({
  kind: 'probe', sent: true, extension: () => 'probe', possible: ({ list }) => list.pages.length > 0,
  fresh: () => ({ kind: 'probe', loud: true }), parts: () => cut([0], undefined, () => 1),
});`,
  },
  'core/sheets/marks': {
    before: /MARKS = \[/,
    file: 'probe',
    text: `import * as z from 'zod';
import { BLACK } from '../../ink/colour';
import { defineMark } from './markKind';
export const probe = defineMark({ kind: 'probe', setting: z.boolean().optional(), room: 20,
  draw({ around, far, take }) {
    const box = { x0: around.x0, x1: around.x0 + 20, y0: around.y1 + far, y1: around.y1 + far + 20 };
    return take(box) ? [{ kind: 'rect', box, ink: BLACK, layer: 'marks' }] : undefined;
  } });`,
  },
  'core/fold/patterns': {
    before: /FOLDS = \[/,
    file: 'probe',
    text: `import * as z from 'zod';
import { shares, vertical } from '../folding';
import { defineFold } from './foldKind';
export const probe = defineFold(z.object({ fold: z.literal('probe'), deep: z.number().int().min(1).max(3) }))({
  kind: 'probe', fresh: () => ({ fold: 'probe', deep: 1 }),
  pattern: () => ({ columns: shares(2), rows: [1], folds: [vertical(1, 'after')] }),
});`,
  },
  'core/checks': {
    before: /CHECKS = \[/,
    file: 'probe',
    text: `import type { CheckKind } from './finding';
export const probe: CheckKind<'probe', { code: 'probe-found'; count: number }, 'probe-mend'> = { kind: 'probe',
  check: ({ list }) => [{ code: 'probe-found', count: list.pages.length, level: 'note', stage: 'pages', pages: [],
    mend: { code: 'probe-mend', steps: [] } }] };`,
  },
};
/** What the other rooms have of it. */
const ROOMS: Record<string, string> = {
  'words/steps/probe.ts': `import type { StepWords } from './stepWords';
export const probe: StepWords<'probe'> = { name: 'Probe', does: 'probe pages', fields: { by: 'By how much' },
  say: ({ by }) => ({ what: 'probed', detail: String(by) }) };`,
  'words/schemes/probe.ts': `import type { SchemeWords } from './schemeWords';
export const probe: SchemeWords = { name: 'probed sheets', said: 'Made up.' };`,
  'words/outputs/probe.ts': `import type { OutputWords } from './outputWords';
export const probe: OutputWords<'probe'> = { name: 'Probe file', said: 'Made up.', make: 'Make probe', inName: () => 'probe' };`,
  'words/marks/probe.ts': `import type { MarkWords } from './markWords';
export const probe: MarkWords = { name: 'probe mark' };`,
  'words/folds/probe.ts': `import type { FoldWords } from './foldWords';
export const probe: FoldWords = { name: 'probe fold' };`,
  'words/checks/probe.ts': `import type { CheckWords } from './checkWords';
export const probe: CheckWords<'probe'> = { found: { 'probe-found': ({ count }) => ({ title: 'Probed', text: String(count) }) },
  mends: { 'probe-mend': () => 'Probe it' } };`,
  'make/outputs/probe.ts': `import { writeText } from '../text';
import type { OutputMaker } from './outputMaker';
export const probe: OutputMaker<'probe'> = { write: async (_, { loud }, parts, job) => writeText(String(loud), parts, job) };`,
};

const lib = (path: string): string => join(ROOT, 'src/lib', path);
/** The tree with the made-up kinds in it: what stands in the files that are new or other than on disk. */
function withProbes(rooms: Record<string, string>): Map<string, string> {
  const files = new Map<string, string>();
  for (const [folder, { before, file, text }] of Object.entries(RECORDS)) {
    const index = lib(`${folder}/index.ts`);
    const made = readFileSync(index, 'utf8').replace(before, (start) => `${start}${file}, `);
    files.set(index, `import { ${file} } from './${file}';\n${made}`);
    files.set(lib(`${folder}/${file}.ts`), text);
  }
  for (const [path, text] of Object.entries(rooms)) files.set(lib(path), text);
  const probed = (family: Family): Family => ({ ...family, kinds: [{ kind: 'probe' }, ...family.kinds] });
  for (const family of FAMILIES)
    files.set(
      join(ROOT, family.file),
      kindsFile(probed(family), (path) => existsSync(join(ROOT, path))),
    );
  return files;
}

test('of a kind of which only the record is there, the compiler names every file that is missing', () => {
  const files = withProbes({});
  const { config } = ts.readConfigFile(join(ROOT, 'tsconfig.json'), ts.sys.readFile) as { config: object };
  const { options } = ts.parseJsonConfigFileContent(config, ts.sys, ROOT);
  const host = ts.createCompilerHost({ ...options, noEmit: true });
  const [readFile, fileExists] = [host.readFile.bind(host), host.fileExists.bind(host)];
  host.readFile = (path) => files.get(resolve(path)) ?? readFile(path);
  host.fileExists = (path) => files.has(resolve(path)) || fileExists(path);
  const getSourceFile = host.getSourceFile.bind(host);
  host.getSourceFile = (path, how, ...more) => {
    const text = files.get(resolve(path));
    return text === undefined ? getSourceFile(path, how, ...more) : ts.createSourceFile(path, text, how);
  };
  const lists = FAMILIES.filter(({ forms }) => !forms).map(({ file }) => join(ROOT, file));
  const program = ts.createProgram({ rootNames: lists, options: { ...options, noEmit: true }, host });
  const missing = lists.flatMap((file) =>
    program
      .getSemanticDiagnostics(program.getSourceFile(file)!)
      .flatMap(({ messageText }) => /Cannot find module '\.\/(\w+)'/.exec(String(messageText))?.[1] ?? [])
      .map((name) => join(dirname(file), `${name}.ts`)),
  );
  expect(missing.sort()).toEqual(Object.keys(ROOMS).map(lib).sort());
  // Nothing else is wrong in core: the records themselves fit.
  const records = Object.keys(RECORDS).map((folder) => program.getSourceFile(lib(`${folder}/probe.ts`))!);
  expect(
    records.flatMap((file) => program.getSemanticDiagnostics(file)).map((each) => each.messageText),
  ).toEqual([]);
});

/** Bundles what was asked for with the made-up kinds in the tree, and runs it. */
async function runWith(entry: string): Promise<Record<string, unknown>> {
  const files = withProbes(ROOMS);
  const probes: Plugin = {
    name: 'probes',
    setup({ onResolve, onLoad }) {
      onResolve({ filter: /^\./ }, ({ path, resolveDir }) => {
        const file = [`${path}.ts`, `${path}/index.ts`, path].map((end) => resolve(resolveDir, end));
        const found = file.find((each) => files.has(each));
        return found ? { path: found } : undefined;
      });
      onLoad({ filter: /\.ts$/ }, ({ path }) =>
        files.has(path) ? { contents: files.get(path)!, loader: 'ts' as const } : undefined,
      );
      // Forms are told by their names.
      onLoad({ filter: /\.svelte$/ }, ({ path }) => ({ contents: `export default '${basename(path)}'` }));
    },
  };
  // Beside the packages that it imports.
  const folder = mkdtempSync(join(ROOT, 'node_modules', '.probe-'));
  const outfile = join(folder, 'probe.mjs');
  await build({
    stdin: { contents: entry, resolveDir: join(ROOT, 'src'), loader: 'ts' },
    bundle: true,
    format: 'esm',
    platform: 'node',
    packages: 'external',
    outfile,
    plugins: [probes],
    logLevel: 'error',
  });
  process.env.PROBE_FOLDER = folder;
  try {
    const { default: found } = (await import(/* @vite-ignore */ pathToFileURL(outfile).href)) as {
      default: Record<string, unknown>;
    };
    return found;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

test('a made-up kind of each family is in buttons, keys, forms, recipes, sheets, outputs, findings and papers by its record alone', async () => {
  const found = await runWith(`
    import { CHECKS, workOut } from './lib/core/checks';
    import { docketSchema, emptyDocket, looksAtPages, sourcesOf } from './lib/core/docket/docket';
    import { plainFields } from './lib/core/docket/plainFields';
    import { askableIn, recipeSchema } from './lib/core/docket/recipe';
    import { freshStep, stepKind } from './lib/core/docket/steps';
    import { FOLDS, patternOf } from './lib/core/fold/patterns';
    import { freshOutput, partsOf, possibleKinds } from './lib/core/handover/outputs';
    import { freshScheme, SCHEMES, schemeKind } from './lib/core/sheets/schemes';
    import { SWITCHED } from './lib/core/sheets/marks';
    import { kindsMarkdown } from './cli/kindsTable';
    import { handOver } from './lib/make/handOver';
    import { actsOf, stepKeys } from './lib/ui/slip/acts';
    import { stepFields } from './lib/ui/slip/steps';
    import { schemeFields } from './lib/ui/slip/schemes';
    import { outputFields } from './lib/ui/slip/outputs';
    import { sayFinding, sayMend } from './lib/words/checks';
    import { partNames } from './lib/words/fileName';
    import { outputWords } from './lib/words/outputs';
    import { sayStep } from './lib/words/steps';
    import { readFileSync } from 'node:fs';
    import { join } from 'node:path';
    const surveys = {};
    const blank = { id: 'b', kind: 'blank', count: 3, where: { at: 'end' } };
    const begun = { list: { pages: [], book: {} }, chosen: undefined, indexes: [], surveys, formats: [], safe: 9 };
    const step = freshStep('probe', 'p', begun);
    const { scheme } = freshScheme('probe', begun.list, emptyDocket('x').scheme);
    const docket = docketSchema.parse({ ...emptyDocket('Probe'), steps: [blank, step], scheme: { ...scheme, marks: { trim: true, fold: false, probe: true } } });
    const work = workOut(docket, surveys);
    const bench = { base: work, beginning: () => begun, begin: () => undefined, pickedIndexes: [] };
    const output = freshOutput('probe', 'o', work);
    const recipe = recipeSchema.parse({ recipe: 1, name: 'Probe', version: 1, steps: [step], formats: [], asks: [] });
    const finding = work.findings.find(({ code }) => code === 'probe-found');
    const made = await handOver(docket, output, { surveys, read: async () => new Uint8Array(), folder: process.env.PROBE_FOLDER, at: new Date(0) });
    export default {
      button: actsOf('pages', bench).find(({ word }) => word === 'Probe'),
      keys: stepKeys().filter(([key]) => key === '$'),
      forms: [stepFields('probe'), schemeFields('probe'), outputFields('probe')],
      fields: plainFields(stepKind('probe').schema).map(({ name, holds }) => [name, holds.type]),
      schemeField: plainFields(schemeKind('probe').schema).map(({ name }) => name),
      asked: askableIn(recipe, step).map(({ path, kind }) => [path.join('.'), kind]),
      sources: sourcesOf(docket),
      looks: looksAtPages(docket),
      said: sayStep(step, 'mm', work.list),
      applied: work.list.pages.map(({ words }) => words),
      offered: SCHEMES.map(({ kind }) => kind).includes('probe'),
      sheets: work.plan?.sheetCount,
      room: work.plan.sheet.height - workOut({ ...docket, scheme: { ...docket.scheme, marks: { trim: true, fold: false } } }, surveys).plan.sheet.height,
      marks: work.plan?.sheets[0]?.front.marks?.length,
      switched: SWITCHED.includes('probe'),
      folds: [FOLDS.some(({ kind }) => kind === 'probe'), patternOf({ fold: 'probe', deep: 1 }).folds[0].moves],
      possible: possibleKinds(work).includes('probe'),
      names: partNames(work, output, partsOf(work, output), '2026-01-01'),
      outputName: outputWords('probe').name,
      written: readFileSync(join(process.env.PROBE_FOLDER, made[0].file), 'utf8'),
      finding: [sayFinding(finding, 'mm').title, sayMend(finding.mend)],
      papers: kindsMarkdown().split('\\n').filter((line) => line.startsWith('| \`probe\`')).length,
    };`);
  expect(found).toMatchObject({
    button: { word: 'Probe', key: '$' },
    keys: [['$', 'probe pages']],
    forms: ['PlainFields.svelte', 'PlainFields.svelte', 'PlainFields.svelte'],
    fields: [
      ['by', 'length'],
      ['often', 'number'],
      ['how', 'choice'],
    ],
    asked: expect.arrayContaining([
      ['pages', 'pages'],
      ['by', 'length'],
      ['often', 'number'],
      ['how', 'choice'],
    ]) as unknown,
    schemeField: ['tall'],
    sources: ['f'.repeat(64)],
    looks: true,
    said: { act: 'Probe', what: 'probed', detail: '12' },
    applied: ['thin2', 'thin2', 'thin2'],
    offered: true,
    sheets: 3,
    room: 40,
    marks: 1,
    switched: true,
    folds: [true, 'after'],
    possible: true,
    names: ['Probe probe.probe'],
    outputName: 'Probe file',
    written: 'true',
    finding: ['Probed', 'Probe it'],
    papers: 5,
  });
});
