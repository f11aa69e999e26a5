import { execFile } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect, test } from '@playwright/test';
import fc from 'fast-check';
import { PLAIN_SCHEMES } from '../src/lib/core/sheets/schemes';
import { markedPdf } from '../tests/outside';
import { Folder } from './folder';

let folder: Folder;
test.beforeAll(async () => {
  folder = await Folder.start({ epoch: SOURCE_DATE_EPOCH });
});
test.afterAll(() => folder.kill());

interface Made {
  id: string;
  state: string;
  trouble?: unknown;
  files: { name: string }[];
}
/** The files of a job's outputs by their names, once all are made. */
async function filesOf(job: string, count: number): Promise<Record<string, string>> {
  let outputs: Made[] = [];
  await expect
    .poll(async () => {
      ({ outputs } = await folder.send<{ outputs: Made[] }>('GET', `/api/jobs/${job}/status`));
      expect(outputs.filter(({ state }) => state === 'failed')).toEqual([]);
      return outputs.filter(({ state }) => state === 'done').length;
    })
    .toBe(count);
  const files: Record<string, string> = {};
  for (const { id, files: parts } of outputs)
    for (const [n, { name }] of parts.entries()) {
      const answer = await folder.ask('GET', `/api/outputs/${id}/file/${n}`);
      files[name] = sumOf(Buffer.from(await answer.arrayBuffer()));
    }
  return files;
}

const sumOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');
const SOURCE_DATE_EPOCH = '1795000000';

const marks = fc.record({
  trim: fc.boolean(),
  fold: fc.boolean(),
  registration: fc.boolean(),
  bar: fc.boolean(),
});
const turn = fc.constantFrom('short-edge', 'long-edge');
const stock = { width: 2000, height: 2200 };
const scheme = fc.oneof(
  fc
    .record({ turn, marks, signature: fc.constantFrom(4, 8) })
    .map((more) => ({ ...PLAIN_SCHEMES.stitched, stock, ...more })),
  fc
    .record({ turn, marks, signature: fc.constantFrom(8, 16) })
    .map((more) => ({ ...PLAIN_SCHEMES.signatures, stock, ...more })),
  fc
    .record({ turn, marks, arrange: fc.constantFrom('repeat', 'stack', 'gang') })
    .map((more) => ({ ...PLAIN_SCHEMES.flat, stock, ...more })),
  fc.record({ turn, marks }).map((more) => ({ ...PLAIN_SCHEMES.leaflet, stock, ...more, pages: 'panels' })),
  fc.record({ marks }).map((more) => ({ ...PLAIN_SCHEMES.spreads, ...more })),
);
const steps = fc.subarray([
  { id: 'x', kind: 'turn', pages: 'odd', by: 180 },
  {
    id: 'y',
    kind: 'trim',
    pages: 'all',
    width: 300,
    height: 420,
    content: 'fit',
    fixed: { x: 'centre', y: 'centre' },
  },
  { id: 'b', kind: 'bleed', pages: 'all', head: 9, foot: 9, spine: 9, fore: 9, fill: 'mirror' },
  { id: 'c', kind: 'blank', count: 2, where: { at: 'after', pages: '2' } },
]);
const split = fc.constantFrom(undefined, { by: 'every', count: 2 });

test('a docket gives the same files, byte for byte, by a recipe, by a job on the server and by the command line', async () => {
  const source = Buffer.from(await markedPdf(12));
  const jobs = fc.sample(fc.record({ scheme, steps, split }), {
    numRuns: 3,
    seed: Number(process.env.FUZZ_SEED ?? 19),
  });
  for (const [n, job] of jobs.entries()) {
    const outputs = [
      { kind: 'sheets', ...(job.split ? { split: job.split } : {}) },
      { kind: 'pages', crop: 'bleed' },
      { kind: 'spreads' },
      { kind: 'map', as: 'csv' },
      { kind: 'previews', of: 'pages', ppi: 20 },
    ];
    await folder.send('PUT', '/api/recipes', {
      recipe: 1,
      name: `Way ${n}`,
      steps: job.steps,
      scheme: job.scheme,
      outputs,
    });
    const query = new URLSearchParams({ recipe: `Way ${n}`, batch: randomUUID(), name: `same ${n}.pdf` });
    const { id } = await folder.send<{ id: string }>('POST', `/api/runs?${query}`, source);
    let done: { job_id: string; state: string; trouble: unknown } | undefined;
    await expect
      .poll(async () => {
        [done] = await folder.query<typeof done & object>(
          `select job_id, state, trouble from run where id = '${id}'`,
        );
        return done?.state;
      })
      .toMatch(/done|failed/);
    expect(done, JSON.stringify(job)).toMatchObject({ state: 'done' });
    const byRecipe = await filesOf(done!.job_id, outputs.length);
    const docket = await folder.send<object>('GET', `/api/jobs/${done!.job_id}/docket`);

    const again = await folder.send<{ id: string }>('POST', '/api/jobs', { docket });
    for (const spec of outputs) await folder.send('POST', `/api/jobs/${again.id}/outputs`, { output: spec });
    expect(await filesOf(again.id, outputs.length)).toEqual(byRecipe);

    const out = mkdtempSync(join(tmpdir(), 'folder-same-'));
    writeFileSync(join(out, 'docket.json'), JSON.stringify(docket));
    writeFileSync(join(out, 'in.pdf'), source);
    await promisify(execFile)(
      process.execPath,
      [
        '--import',
        'tsx',
        'src/cli/folder.ts',
        'make',
        join(out, 'docket.json'),
        join(out, 'in.pdf'),
        '--out',
        join(out, 'made'),
      ],
      { env: { ...process.env, DATABASE_URL: '', SOURCE_DATE_EPOCH } },
    );
    const byHand = Object.fromEntries(
      readdirSync(join(out, 'made')).map((name) => [name, sumOf(readFileSync(join(out, 'made', name)))]),
    );
    expect(byHand).toEqual(byRecipe);
  }
});
