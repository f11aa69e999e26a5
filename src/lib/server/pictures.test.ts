import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import { hashOf, plainSurvey } from '../../../tests/makers';
import { db } from './db';
import * as fenced from './fencedBlob';
import { pictureOf } from './pictures';
import { Problem } from './problem';

vi.mock('./fencedBlob', () => ({ makeOfBlob: vi.fn() }));
const drawn = vi.mocked(fenced.makeOfBlob);
const tooSlow = () => Promise.reject(new Problem(422, { code: 'too-slow', data: { seconds: 5 } }));
const png = (text: string) => Promise.resolve(Buffer.from(text));

describe.skipIf(!server)('pictures of pages', () => {
  let close: () => Promise<void>;
  beforeAll(async () => void (close = await ownDatabase('pictures')));
  afterAll(() => close());
  beforeEach(async () => {
    drawn.mockReset();
    await db().query('truncate source, blob cascade');
    await db().query(
      'with b as (insert into blob (sha256) values ($1) returning id) insert into source (sha256, blob_id, survey) select $1, id, $2 from b',
      [hashOf('a'), JSON.stringify(plainSurvey(4))],
    );
  });
  const a = hashOf('a');

  test('are drawn once and kept, also when asked for at once', async () => {
    drawn.mockImplementation(() => png('one'));
    const [one, two] = await Promise.all([pictureOf(a, 0), pictureOf(a, 0)]);
    expect([String(one), String(two), String(await pictureOf(a, 0))]).toEqual(['one', 'one', 'one']);
    expect(drawn).toHaveBeenCalledTimes(1);
    await expect(pictureOf(a, 9)).rejects.toMatchObject({ status: 404 });
  });

  test('a page that never ends holds up no other, is tried twice, and is remembered with what went wrong', async () => {
    let end = () => undefined as void;
    const patient = new Promise<Buffer>(
      (_, fail) => (end = () => fail(new Problem(422, { code: 'too-slow', data: { seconds: 1 } }))),
    );
    drawn.mockImplementation((_, __, task, limits) =>
      (task as { index: number }).index ? png('other') : limits.seconds > 10 ? patient : tooSlow(),
    );
    const broken = pictureOf(a, 0);
    broken.catch(() => undefined);
    await expect.poll(() => drawn.mock.calls.length).toBe(2);
    expect(String(await pictureOf(a, 1))).toBe('other');
    end();
    const refused = { status: 422, trouble: { code: 'too-slow' } };
    await expect(broken).rejects.toMatchObject(refused);
    for (let looks = 0; looks < 3; looks++) await expect(pictureOf(a, 0)).rejects.toMatchObject(refused);
    expect(drawn).toHaveBeenCalledTimes(3);
    await db().query("update picture set tried_at = now() - interval '25 hours'");
    drawn.mockImplementation(() => png('mended'));
    expect(String(await pictureOf(a, 0))).toBe('mended');
  });

  test('a page that needs more than most gets it; what says nothing of the page is not remembered', async () => {
    drawn.mockImplementationOnce(tooSlow).mockImplementationOnce(() => png('large'));
    expect(String(await pictureOf(a, 0))).toBe('large');
    drawn.mockImplementationOnce(() => Promise.reject(new Problem(422, { code: 'stopped-early' })));
    await expect(pictureOf(a, 1)).rejects.toMatchObject({ trouble: { code: 'stopped-early' } });
    drawn.mockImplementationOnce(() => png('now'));
    expect(String(await pictureOf(a, 1))).toBe('now');
  });
});
