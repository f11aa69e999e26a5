import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { emptyDocket } from '../lib/core/docket/docket';
import { markedPdf, tool, wordsOf } from '../../tests/outside';
import { main } from './main';
import { kindsMarkdown } from './kindsTable';
import { docketSchemaJson, finishingSchemaJson, recipeSchemaJson } from './schemaJson';

const folder = mkdtempSync(join(tmpdir(), 'folder-cli-'));
const path = (name: string) => join(folder, name);
/** Calls the command line in this process. */
async function run(...args: string[]) {
  const said = { stdout: '', stderr: '' };
  const status = await main(args, {
    out: (text) => (said.stdout += text),
    err: (text) => (said.stderr += text),
    isWatched: false,
  });
  return { status, ...said };
}

test('the program answers by itself, without a database: what it prints and its exit status', () => {
  const call = (...args: string[]) =>
    spawnSync(process.execPath, ['--import', 'tsx', 'src/cli/folder.ts', ...args], {
      encoding: 'utf8',
      env: { ...process.env, DATABASE_URL: '' },
    });
  writeFileSync(path('broken.pdf'), 'no');
  expect(call('--help')).toMatchObject({ status: 0, stdout: expect.stringContaining('folder survey FILE') });
  expect(call('survey', path('broken.pdf'))).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('This is neither a PDF'),
  });
});

test('a docket and its files become the same outputs as on the bench; a file renamed or drawn anew is known by its name', async () => {
  writeFileSync(path('in.pdf'), await markedPdf(8));
  const { status, stdout } = await run('survey', path('in.pdf'));
  expect(status).toBe(0);
  const { sha256, pages } = JSON.parse(stdout) as { sha256: string; pages: unknown[] };
  expect(pages).toHaveLength(8);
  for (const source of [sha256, 'f'.repeat(64)]) {
    const docket = {
      ...emptyDocket('Eight'),
      steps: [{ id: 't', kind: 'take-in', source, name: 'in.pdf', where: { at: 'end' } }],
    };
    writeFileSync(path('docket.json'), JSON.stringify(docket));
    const made = await run('make', path('docket.json'), path('in.pdf'), '--out', path('out'));
    expect(made.status).toBe(0);
    for (const name of ['Eight pages.pdf', 'Eight sheets.pdf'])
      tool('qpdf', '--check', join(folder, 'out', name));
    const sides = wordsOf(join(folder, 'out', 'Eight sheets.pdf')).map((side) =>
      side
        .filter(({ text }) => /^P\d$/.test(text))
        .sort((a, b) => a.x - b.x)
        .map(({ text }) => text)
        .join('·'),
    );
    expect(sides).toEqual(['P8·P1', 'P2·P7', 'P6·P3', 'P4·P5']);
  }
});

test('exit status 1 with one sentence when the work fails, 2 when the call is wrong', async () => {
  writeFileSync(path('not.pdf'), 'no');
  writeFileSync(path('bad.json'), '{"version": 1}');
  writeFileSync(
    path('lost.json'),
    JSON.stringify({
      ...emptyDocket('Lost'),
      steps: [{ id: 't', kind: 'take-in', source: 'a'.repeat(64), name: 'gone.pdf', where: { at: 'end' } }],
    }),
  );
  for (const [args, status, says] of [
    [['survey', path('not.pdf')], 1, 'This is neither a PDF'],
    [['survey', path('nowhere.pdf')], 1, 'cannot be opened'],
    [['make', path('bad.json'), '--out', path('o')], 1, 'The docket cannot be read'],
    [['make', path('lost.json'), path('not.pdf'), '--out', path('o')], 1, '“gone.pdf” was not given'],
    [['make', path('lost.json')], 2, 'folder make'],
    [['paint'], 2, 'folder survey'],
    [[], 2, 'folder survey'],
  ] as const) {
    const result = await run(...args);
    expect([result.status, result.stderr]).toEqual([status, expect.stringContaining(says)]);
    if (status === 1) expect(result.stderr.trim().split('\n')).toHaveLength(1);
  }
});

test.each([
  ['docs/docket.schema.json', docketSchemaJson],
  ['docs/recipe.schema.json', recipeSchemaJson],
  ['docs/finishing.schema.json', finishingSchemaJson],
  ['docs/kinds.md', kindsMarkdown],
])('%s is that of the code: npm run schema writes it', (file, made) =>
  expect(readFileSync(file, 'utf8')).toBe(made()),
);

const BLEED = { id: 'b', kind: 'bleed', pages: 'all', head: 9, foot: 9, spine: 9, fore: 9 };
const recipe = {
  recipe: 1,
  name: 'Bled',
  steps: [BLEED, { id: 'r', kind: 'remove', pages: 'last' }],
  outputs: [{ kind: 'pages', crop: 'bleed', name: '{source} bled' }],
  asks: [
    { name: 'off', label: 'Which pages go', kind: 'pages', step: 'r', path: ['pages'] },
    { name: 'head', label: 'Bleed at the head', kind: 'length', step: 'b', path: ['head'], preset: 9 },
  ],
};

test('a recipe is carried out on each file with the values that are said; what is missing or wrong is named', async () => {
  writeFileSync(path('recipe.json'), JSON.stringify(recipe));
  for (const [name, count] of [
    ['one', 4],
    ['two', 6],
  ] as const)
    writeFileSync(path(`${name}.pdf`), await markedPdf(count));
  const work = (...more: string[]) =>
    run('recipe', path('recipe.json'), path('one.pdf'), path('two.pdf'), '--out', path('bled'), ...more);
  const { status, stdout } = await work('--set', 'off=last', '--set', 'head=10 mm', '--json');
  expect(status).toBe(0);
  const results = JSON.parse(stdout) as { source: string; written: string[] }[];
  expect(results.map(({ written }) => written)).toEqual([
    [path('bled/one bled.pdf')],
    [path('bled/two bled.pdf')],
  ]);
  expect(wordsOf(path('bled/two bled.pdf'))).toHaveLength(5);
  const [bled, trim] = ['MediaBox', 'TrimBox'].map((box) =>
    new RegExp(`${box}: +(.*)`)
      .exec(tool('pdfinfo', '-box', path('bled/one bled.pdf')))![1]!
      .trim()
      .split(/ +/)
      .map(Number),
  );
  expect(bled![3]! - trim![3]!).toBeCloseTo(28.35, 1);
  expect(await work()).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('asks for “Which pages go” (off)'),
  });
  expect(await work('--set', 'head=far', '--set', 'off=1')).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('“far” is no length'),
  });
});

test('a file is split, and a watched folder is worked until it is empty, each without database or server', async () => {
  writeFileSync(path('long.pdf'), await markedPdf(12));
  const split = await run(
    'split',
    path('long.pdf'),
    '--by',
    'every=5',
    '--out',
    path('parts'),
    '--name',
    '{source} {from}-{to}',
  );
  expect(split.stdout.trim().split('\n')).toEqual(
    ['01-05', '06-10', '11-12'].map((part) => path(`parts/long ${part}.pdf`)),
  );
  expect((await run('split', path('long.pdf'), '--by', 'whim', '--out', path('parts'))).status).toBe(1);
  const inbox = mkdtempSync(join(tmpdir(), 'folder-watch-'));
  writeFileSync(join(inbox, 'good.pdf'), await markedPdf(3));
  writeFileSync(join(inbox, 'bad.pdf'), 'no PDF');
  writeFileSync(path('plain.json'), JSON.stringify({ ...recipe, asks: [] }));
  expect((await run('watch', inbox, '--recipe', path('plain.json'), '--once')).status).toBe(0);
  expect(wordsOf(join(inbox, 'done/good/good bled.pdf'))).toHaveLength(2);
  expect(readFileSync(join(inbox, 'failed/bad/why.txt'), 'utf8')).toContain('neither a PDF');
});

test('a stamp is found among the files; a finding that says stop ends in 1 unless it is to go out; surveys print what they can', async () => {
  const files = join(import.meta.dirname, '..', '..', 'tests', 'cases', 'files');
  const at = (name: string) => join(files, name);
  const stamped = await run(
    'make',
    at('stamp.json'),
    at('work.pdf'),
    at('logo.pdf'),
    '--out',
    path('stamped'),
  );
  expect(stamped.status).toBe(0);
  // The stamp is drawn on each page: the page without it looks otherwise (poppler).
  const drawn = (file: string) => tool('pdftotext', '-layout', file, '-');
  expect(drawn(stamped.stdout.trim())).toContain(drawn(at('logo.pdf')).trim());
  const alone = await run('make', at('stamp.json'), at('work.pdf'), '--out', path('stamped'));
  expect([alone.status, alone.stderr]).toEqual([1, expect.stringContaining('logo.pdf')]);

  writeFileSync(path('eight.pdf'), await markedPdf(8));
  const wrong = {
    ...emptyDocket('Wrong'),
    book: { first: 'left', spine: 'left', facing: true },
    steps: [{ id: 't', kind: 'take-in', source: 'a'.repeat(64), name: 'eight.pdf', where: { at: 'end' } }],
  };
  writeFileSync(path('wrong.json'), JSON.stringify(wrong));
  const stopped = await run('make', path('wrong.json'), path('eight.pdf'), '--out', path('wrong'));
  expect([stopped.status, stopped.stderr]).toEqual([1, expect.stringContaining('not to go out')]);
  const despite = ['--despite', 'the customer wants it'];
  expect(
    (await run('make', path('wrong.json'), path('eight.pdf'), '--out', path('wrong'), ...despite)).status,
  ).toBe(0);

  writeFileSync(path('no.pdf'), 'no');
  const several = await run('survey', path('no.pdf'), path('eight.pdf'));
  expect(several.status).toBe(1);
  expect((JSON.parse(several.stdout) as unknown[]).length).toBe(1);
  expect(several.stderr).toContain('1 of 2 files could not be surveyed');
});

test('sheets are proved by folding: what holds ends in 0; a cell turned by hand is named, and ends in 1', async () => {
  writeFileSync(path('booklet.pdf'), await markedPdf(8));
  const { stdout } = await run('survey', path('booklet.pdf'));
  const { sha256 } = JSON.parse(stdout) as { sha256: string };
  const plain = {
    ...emptyDocket('Booklet'),
    steps: [{ id: 't', kind: 'take-in', source: sha256, name: 'booklet.pdf', where: { at: 'end' } }],
    outputs: [{ kind: 'sheets' }],
  };
  const turn = { do: 'turn', at: { sheet: 1, side: 'front', cell: 1 } };
  for (const [name, docket, status, says] of [
    ['right', plain, 0, 'The proof holds: all 8 pages come out as intended, compared at 72 ppi.'],
    [
      'wrong',
      { ...plain, scheme: { ...plain.scheme, byHand: [turn] } },
      1,
      'The proof fails: 1 of 8 pages is not as intended.\nPage 8 (sheet 1, front): upside down.',
    ],
  ] as const) {
    writeFileSync(path(`${name}.json`), JSON.stringify(docket));
    const out = path(`proved-${name}`);
    await run('make', path(`${name}.json`), path('booklet.pdf'), '--out', out, '--despite', 'to be proved');
    const proved = await run(
      'prove',
      path(`${name}.json`),
      join(out, 'Booklet sheets.pdf'),
      path('booklet.pdf'),
    );
    expect([proved.status, proved.stdout.trim()]).toEqual([status, says]);
  }
  // Spreads for a screen are not made into anything.
  writeFileSync(
    path('spreads.json'),
    JSON.stringify({ ...plain, scheme: { kind: 'spreads', marks: { trim: true, fold: false } } }),
  );
  expect(await run('prove', path('spreads.json'), path('booklet.pdf'), path('booklet.pdf'))).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('nothing to prove'),
  });
});
