import { randomUUID } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import { hashOf, plainSurvey } from '../../../tests/makers';
import { workOut } from '../core/checks';
import { emptyDocket, type Docket } from '../core/docket/docket';
import { db } from './db';
import { createJob } from './jobs';
import { judge } from './judge';
import { judgedOf } from './judged';
import { orderOutput } from './outputs';
import { surveysOf } from './sources';
import { speakIn } from './speech';
import { pulseOf } from './status';

const [SHORT, LONG] = [hashOf('5'), hashOf('1')];
const docketOf = (source: string): Docket => ({
  ...emptyDocket('Long'),
  steps: [
    { id: 't', kind: 'take-in', source, name: 'long.pdf', where: { at: 'end' } },
    { id: 'b', kind: 'bleed', pages: 'all', head: 8, foot: 8, spine: 8, fore: 8 },
  ],
});

describe.skipIf(!server)('jobs worked out for the list of jobs', () => {
  let close: () => Promise<void>;
  beforeAll(async () => {
    close = await ownDatabase('judge');
    for (const [source, pages] of [
      [SHORT, 12],
      [LONG, 4000],
    ] as const)
      await db().query(
        'with b as (insert into blob (sha256) values ($1) returning id) insert into source (sha256, blob_id, survey) select $1, id, $2 from b',
        [source, JSON.stringify(plainSurvey(pages))],
      );
  });
  afterAll(() => close());

  test('are the same in this thread and in another one, which leaves this one free', async () => {
    for (const [source, isFree] of [
      [SHORT, false],
      [LONG, true],
    ] as const) {
      const docket = docketOf(source);
      const judged = judge(docket);
      let done = false;
      void judged.finally(() => (done = true));
      // What else the server has to do gets its turn again and again meanwhile.
      let turns = 0;
      for (; !done; turns++) await setImmediate();
      const here = judgedOf(workOut(docket, await surveysOf([source])));
      expect(await judged).toEqual(here);
      expect(here.findings.length).toBeGreaterThan(0);
      if (isFree) expect(turns).toBeGreaterThan(1000);
    }
  });

  test('are told in the language of who asks, in the other thread too', async () => {
    for (const source of [SHORT, LONG]) {
      const docket = docketOf(source);
      const [english, german] = [await judge(docket), await speakIn('de', () => judge(docket))];
      expect(german.findings).toHaveLength(english.findings.length);
      const said = (judged: typeof german) => judged.findings.map(({ title }) => title);
      expect(said(german).filter((title) => said(english).includes(title))).toEqual([]);
    }
  });

  test('a thread that ends takes nothing along but what it was asked', async () => {
    const docket = { ...docketOf(LONG), title: 'Interrupted' };
    const posted = vi.spyOn(Worker.prototype, 'postMessage');
    const asked = judge(docket);
    await expect.poll(() => posted.mock.calls.length).toBeGreaterThan(0);
    await (posted.mock.contexts[0] as Worker).terminate();
    await expect(asked).rejects.toThrow('ended');
    expect((await judge(docket)).summary.pages).toBe(4000);
    // What was judged is known, until anything that decides it is another.
    const times = posted.mock.calls.length;
    expect((await judge(structuredClone(docket))).summary.pages).toBe(4000);
    expect(posted.mock.calls.length).toBe(times);
    await db().query("update source set survey = $1 where survey->'pages'->3999 is not null", [
      JSON.stringify(plainSurvey(3000)),
    ]);
    expect((await judge(docket)).summary.pages).toBe(3000);
    expect(posted.mock.calls.length).toBe(times + 1);
  });

  test('large ones are worked out before they are handed over: when they are opened, and when their pages are measured', async () => {
    const docket = { ...docketOf(LONG), title: 'Ahead' };
    const posted = vi.spyOn(Worker.prototype, 'postMessage');
    const [id, window] = [await createJob(docket), randomUUID()];
    const times = () => posted.mock.calls.length;
    const measure = (state: string) =>
      db().query(
        'insert into measure (id, state) values ($1, $2) on conflict (id) do update set state = excluded.state',
        [LONG, state],
      );
    const measured = (pages: number) =>
      db().query('update source set survey = $1 where sha256 = $2', [
        JSON.stringify(plainSurvey(pages)),
        LONG,
      ]);

    await measure('waiting');
    const { tag } = await pulseOf(id, { window });
    await measured(3500);
    await measure('done');
    const before = times();
    await pulseOf(id, { window, tag });
    await expect.poll(times).toBe(before + 1);
    await orderOutput(id, { output: { kind: 'pages', crop: 'trim' }, despite: 'It is a test.' });
    expect(times()).toBe(before + 1);

    await measured(3600);
    await pulseOf(id, { window: randomUUID() });
    await expect.poll(times).toBe(before + 2);
    await orderOutput(id, { output: { kind: 'pages', crop: 'trim' }, despite: 'It is a test.' });
    expect(times()).toBe(before + 2);
  });
});
