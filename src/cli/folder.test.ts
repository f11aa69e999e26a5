import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { emptyDocket } from '../lib/core/docket/docket';
import { markedPdf, tool, wordsOf } from '../../tests/outside';
import { docketSchemaJson } from './schemaJson';

const folder = mkdtempSync(join(tmpdir(), 'folder-cli-'));
const path = (name: string) => join(folder, name);
/** Runs the command line without a database. */
const run = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'src/cli/folder.ts', ...args],
    { encoding: 'utf8', env: { ...process.env, DATABASE_URL: '' } },
  );
  return { status, stdout, stderr };
};

test('a docket and its files become the same outputs as on the bench; a file renamed or drawn anew is known by its name', async () => {
  writeFileSync(path('in.pdf'), await markedPdf(8));
  const { status, stdout } = run('survey', path('in.pdf'));
  expect(status).toBe(0);
  const { sha256, pages } = JSON.parse(stdout) as { sha256: string; pages: unknown[] };
  expect(pages).toHaveLength(8);
  for (const source of [sha256, 'f'.repeat(64)]) {
    const docket = {
      ...emptyDocket('Eight'),
      steps: [{ id: 't', kind: 'take-in', source, name: 'in.pdf', where: { at: 'end' } }],
    };
    writeFileSync(path('docket.json'), JSON.stringify(docket));
    const made = run('make', path('docket.json'), path('in.pdf'), '--out', path('out'));
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
}, 60_000);

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
    const result = run(...args);
    expect([result.status, result.stderr]).toEqual([status, expect.stringContaining(says)]);
    if (status === 1) expect(result.stderr.trim().split('\n')).toHaveLength(1);
  }
}, 120_000);

test('the published schema is that of the code: npm run schema writes it', () => {
  expect(readFileSync('docs/docket.schema.json', 'utf8')).toBe(docketSchemaJson());
});
