import { beforeEach, describe, expect, test, vi } from 'vitest';
import { A5, docketOf, hashOf, plainSurvey, takeInStep } from '../../../../tests/makers';
import { emptyDocket, type Docket } from '../../core/docket/docket';
import { replay } from '../../core/docket/replay';
import type { StepOf } from '../../core/docket/steps';
import type { IntakeState, JobState } from '../../wire/told';
import { api, Refused } from '../api';
import { Bench } from '../bench.svelte';
import { Draft } from './draft.svelte';
import { Incoming, type FilesServer } from './incoming.svelte';
import { Selected } from './selected.svelte';

const surveys = { [hashOf('a')]: plainSurvey(6) };
const list = replay(docketOf([takeInStep('a')]), surveys).list;
const ids = list.pages.map(({ id }) => id);

describe('what is selected', () => {
  test('by pointing: those very pages, said as positions; with Ctrl one more, or one less', () => {
    const selected = new Selected(() => list);
    expect(selected.selection).toBeUndefined();
    selected.choose([ids[1]!, ids[2]!]);
    expect([selected.indexes, selected.text]).toEqual([[1, 2], '2, 3']);
    selected.chooseOne(ids[4]!, { ctrlKey: true, metaKey: false });
    selected.chooseOne(ids[1]!, { ctrlKey: true, metaKey: false });
    expect(selected.selection).toEqual({ ids: [ids[2], ids[4]] });
    selected.chooseOne(ids[0]!, { ctrlKey: false, metaKey: false });
    expect(selected.indexes).toEqual([0]);
  });

  test('by typing: as text, with the first page brought into sight; what cannot be read says why and leaves the rest', () => {
    const typed = vi.fn();
    const selected = new Selected(() => list, typed);
    expect(selected.type('even')).toBe(true);
    expect([selected.selection, selected.indexes, typed.mock.calls]).toEqual(['even', [1, 3, 5], [[1]]]);
    expect(selected.type('even 9x')).toBe(false);
    expect(selected.error).toContain('9x');
    expect(selected.indexes).toEqual([1, 3, 5]);
    expect(selected.type('')).toBe(true);
    expect(selected.selection).toBeUndefined();
  });

  test('when pages go, the others stay selected, and what was typed stays as long as it means them', () => {
    let now = list;
    const selected = new Selected(() => now);
    selected.type('2-4');
    now = { ...list, pages: list.pages.filter((_, n) => n !== 2) };
    selected.dropGone();
    expect([selected.indexes, selected.text]).toEqual([[1, 2], '2, 3']);
    selected.type('last');
    now = { ...now, pages: now.pages.slice(1) };
    selected.dropGone();
    expect([selected.indexes, selected.text]).toEqual([[3], 'last']);
  });
});

test('a draft is shown in its place on the docket, with how the book lies; leaving puts all of it away', () => {
  const draft = new Draft();
  const docket = docketOf([takeInStep('a')]);
  const step: StepOf<'remove'> = { id: 'r', kind: 'remove', pages: 'last' };
  draft.open({ kind: 'remove' });
  draft.book = { first: 'left', spine: 'left', facing: true };
  draft.try(step, docket);
  expect([draft.trial!.steps.at(-1), draft.trial!.book.first, draft.doing]).toEqual([step, 'left', 'remove']);
  draft.try(undefined, docket);
  expect(draft.trial).toBeUndefined();
  draft.format = { id: 'f', name: 'body' };
  draft.leave();
  expect([draft.form, draft.book, draft.format, draft.doing]).toEqual([undefined, undefined, undefined, '']);
});

describe('files on their way', () => {
  const state = (id: string, more: Partial<IntakeState> = {}): IntakeState => ({
    id,
    name: `${id}.pdf`,
    state: 'waiting',
    done: 0,
    total: 0,
    ...more,
  });
  const files = (names: string[]) => names.map((name) => new File(['%PDF'], name));

  test('one after the other, each with its share; one that is refused says why until it is dismissed', async () => {
    const shares: number[] = [];
    const changed = vi.fn();
    const server = {
      upload: vi.fn(async (_job: string, file: File, _where: object, onShare: (share: number) => void) => {
        if (file.name === 'bad.pdf') throw new Refused(413, { code: 'too-large', data: { most: 5 } });
        onShare(0.5);
        shares.push(...incoming.uploads.map(({ share }) => share));
        return { id: 'x', sha256: 'f'.repeat(64) };
      }),
      dismiss: vi.fn(async () => undefined),
    } as unknown as FilesServer;
    const incoming: Incoming = new Incoming('job', changed, server);
    await incoming.takeIn(files(['good.pdf', 'bad.pdf']));
    expect([shares, incoming.uploads, changed.mock.calls.length]).toEqual([[0.5], [], 2]);
    expect(incoming.intakes).toMatchObject([{ name: 'bad.pdf', trouble: { code: 'too-large' } }]);
    incoming.told([state('good')]);
    expect([incoming.intakes.map(({ name }) => name), incoming.isBusy]).toEqual([
      ['good.pdf', 'bad.pdf'],
      true,
    ]);
    incoming.dismiss(incoming.intakes[1]!);
    incoming.told([]);
    expect([incoming.intakes, incoming.isBusy, server.dismiss]).toEqual([[], false, server.dismiss]);
    expect(server.dismiss).not.toHaveBeenCalled();
  });

  test('a graphic is waited for; one that cannot be read is put away and said', async () => {
    const told = [[state('g')], [state('g', { state: 'failed', trouble: { code: 'damaged' } })]];
    const server = {
      upload: async () => ({ id: 'g', sha256: 'f'.repeat(64) }),
      status: async () => ({ intakes: told.shift() }),
      dismiss: vi.fn(async () => undefined),
    } as unknown as FilesServer;
    const incoming = new Incoming('job', () => undefined, server);
    await expect(incoming.bringGraphic(files(['logo.pdf'])[0]!)).rejects.toMatchObject({
      trouble: { code: 'damaged' },
    });
    expect(server.dismiss).toHaveBeenCalledWith('g');
  });
});

describe('a job on the bench', () => {
  const jobOf = (docket: Docket, revision: number): JobState =>
    ({ id: 'job', revision, docket, canUndo: true, redo: [] }) as unknown as JobState;
  const docket = { ...docketOf([takeInStep('a')]), title: 'Moor' };
  const removed: StepOf<'remove'> = { id: 'r', kind: 'remove', pages: 'last' };
  const kept = new Map<string, string>();
  let bench: Bench;
  beforeEach(() => {
    vi.restoreAllMocks();
    kept.clear();
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, text: string) => void kept.set(key, text),
      removeItem: (key: string) => void kept.delete(key),
    });
    bench = new Bench(jobOf(docket, 1), surveys);
  });
  const pages = () => bench.shown.list.pages.length;

  test('what is tried shows at once and changes nothing; accepted, it is saved; findings follow the trial', async () => {
    const save = vi
      .spyOn(api, 'save')
      .mockImplementation(async (_id, revision, next) => jobOf(next, revision + 1));
    bench.begin('trim');
    bench.tryStep({
      id: 's',
      kind: 'trim',
      pages: '1',
      width: A5.width,
      height: A5.height / 2,
      content: 'hold',
      fixed: { x: 'centre', y: 'centre' },
    });
    bench.judgeSoon();
    await expect.poll(() => bench.findings.map(({ code }) => code)).toContain('leaf-two-sizes');
    expect(bench.base.findings.map(({ code }) => code)).not.toContain('leaf-two-sizes');
    bench.tryStep(removed);
    expect([pages(), bench.base.list.pages.length, save]).toEqual([5, 6, save]);
    expect(save).not.toHaveBeenCalled();
    bench.acceptStep(removed);
    expect([pages(), bench.draft.form, bench.saving.unsent]).toEqual([5, undefined, 1]);
    await bench.settled();
    expect([bench.revision, bench.saving.unsent, save.mock.calls.length]).toEqual([2, 0, 1]);
  });

  test('undo while a change is being saved is sent after it', async () => {
    const order: string[] = [];
    vi.spyOn(api, 'save').mockImplementation(async (_id, revision, next) => {
      order.push(`save at ${revision}`);
      await new Promise((soon) => setTimeout(soon, 20));
      return jobOf(next, revision + 1);
    });
    vi.spyOn(api, 'walk').mockImplementation(async (_id, revision, way) => {
      order.push(`${way} at ${revision}`);
      return jobOf(docket, revision + 1);
    });
    bench.acceptStep(removed);
    bench.walk('undo');
    await bench.settled();
    expect(order).toEqual(['save at 1', 'undo at 2']);
    expect([pages(), bench.revision]).toEqual([6, 3]);
  });

  test('overtaken by another window: both changes are put together, else theirs stands and it is said', async () => {
    const theirs = { ...docket, unit: 'pt' as const };
    const saved: Docket[] = [];
    const refuse = (job: JobState) => Promise.reject(new Refused(409, { code: 'stale' }, job));
    vi.spyOn(api, 'save')
      .mockImplementationOnce(() => refuse(jobOf(theirs, 5)))
      .mockImplementation(async (_id, revision, next) => (saved.push(next), jobOf(next, revision + 1)));
    bench.acceptStep(removed);
    await bench.settled();
    expect(saved).toMatchObject([{ unit: 'pt', steps: [{}, { id: 'r' }] }]);
    expect([bench.unit, pages(), bench.revision]).toEqual(['pt', 5, 6]);
    expect(bench.notice).toContain('Both changes are on the docket');

    vi.spyOn(api, 'save').mockImplementation(() => refuse(jobOf({ ...bench.docket, title: 'Theirs' }, 9)));
    bench.put({ ...bench.docket, title: 'Mine' });
    await bench.settled();
    expect([bench.docket.title, bench.revision]).toEqual(['Theirs', 9]);
    expect(bench.notice).toContain('at the same place');
  });

  test('while the server is away a change waits, is kept in the browser, and arrives once', async () => {
    vi.useFakeTimers();
    try {
      const save = vi
        .spyOn(api, 'save')
        .mockRejectedValueOnce(new TypeError('fetch failed'))
        // It arrived, and only the answer was lost.
        .mockImplementationOnce(async (_id, _revision, next) =>
          Promise.reject(new Refused(409, { code: 'stale' }, jobOf(next, 2))),
        );
      bench.acceptStep(removed);
      await vi.advanceTimersByTimeAsync(10);
      expect([bench.saving.away, bench.saving.unsent, kept.size]).toEqual([true, 1, 1]);
      await vi.advanceTimersByTimeAsync(1500);
      await bench.settled();
      expect([bench.saving.away, bench.saving.unsent, kept.size, bench.notice]).toEqual([false, 0, 0, '']);
      expect([save.mock.calls.length, bench.revision, pages()]).toEqual([2, 2, 5]);
    } finally {
      vi.useRealTimers();
    }
  });

  test('what the server refuses is taken back to how the job stands, and said', async () => {
    vi.spyOn(api, 'save').mockRejectedValue(
      new Refused(400, { code: 'docket-invalid', data: { reason: 'x' } }),
    );
    vi.spyOn(api, 'readJob').mockResolvedValue(jobOf(docket, 1));
    bench.acceptStep(removed);
    await bench.settled();
    expect([pages(), bench.saving.unsent]).toEqual([6, 0]);
    expect(bench.notice).toContain('Not saved.');
  });

  test('a change that an earlier window could not send is put on the docket', async () => {
    vi.spyOn(api, 'save').mockImplementation(async (_id, revision, next) => jobOf(next, revision + 1));
    const left = { ...docket, steps: [...docket.steps, removed] };
    kept.set('folder-unsent-job', JSON.stringify({ base: { revision: 1, docket }, docket: left }));
    bench.sendLeftOver();
    expect(pages()).toBe(5);
    await bench.settled();
    expect([bench.notice, kept.size]).toEqual([expect.stringContaining('is on the docket now'), 0]);
  });

  test('an empty job takes blank pages', () => {
    bench = new Bench(jobOf(emptyDocket('New'), 1), {});
    bench.tryStep({ id: 'b', kind: 'blank', count: 3, where: { at: 'end' } });
    expect(pages()).toBe(3);
  });
});
