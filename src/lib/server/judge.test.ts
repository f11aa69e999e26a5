import { setImmediate } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import { hashOf, plainSurvey } from '../../../tests/makers';
import { workOut } from '../core/checks';
import { emptyDocket, type Docket } from '../core/docket/docket';
import { db } from './db';
import { judge } from './judge';
import { judgedOf } from './judged';
import { surveysOf } from './sources';
import { speakIn } from './speech';

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
    for (const [name, pages] of [
      ['short', 12],
      ['long', 4000],
    ] as const)
      await db().query(
        'with b as (insert into blob (sha256) values ($1) returning id) insert into source (sha256, blob_id, survey) select $1, id, $2 from b',
        [hashOf(name), JSON.stringify(plainSurvey(pages))],
      );
  });
  afterAll(() => close());

  test('are the same in this thread and in another one, which leaves this one free', async () => {
    for (const [name, isFree] of [
      ['short', false],
      ['long', true],
    ] as const) {
      const docket = docketOf(hashOf(name));
      const judged = judge(docket);
      let done = false;
      void judged.finally(() => (done = true));
      // What else the server has to do gets its turn again and again meanwhile.
      let turns = 0;
      for (; !done; turns++) await setImmediate();
      const here = judgedOf(workOut(docket, await surveysOf([hashOf(name)])));
      expect(await judged).toEqual(here);
      expect(here.findings.length).toBeGreaterThan(0);
      if (isFree) expect(turns).toBeGreaterThan(1000);
    }
  });

  test('are told in the language of who asks, in the other thread too', async () => {
    for (const name of ['short', 'long']) {
      const docket = docketOf(hashOf(name));
      const [english, german] = [await judge(docket), await speakIn('de', () => judge(docket))];
      expect(german.findings).toHaveLength(english.findings.length);
      const said = (judged: typeof german) => judged.findings.map(({ title }) => title);
      expect(said(german).filter((title) => said(english).includes(title))).toEqual([]);
    }
  });

  test('a thread that ends takes nothing along but what it was asked', async () => {
    const docket = { ...docketOf(hashOf('long')), title: 'Interrupted' };
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
});
