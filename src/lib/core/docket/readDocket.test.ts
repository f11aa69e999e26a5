import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { docketSchema } from './docket';
import { DOCKET_VERSION, readDocket } from './readDocket';
import { readKept } from './kept';
import { readRecipe, RECIPE_VERSION } from './recipe';
import { bringUp, VersionError } from './versions';

/** What each version wrote, as it was stored; never changed afterwards. */
const STORED = join(import.meta.dirname, 'stored');
const stored = (name: string) => JSON.parse(readFileSync(join(STORED, name), 'utf8')) as unknown;

describe('what is stored is brought up to date one version at a time', () => {
  const versions = {
    key: 'v',
    now: 3,
    upgrades: [
      ({ long, ...rest }: Record<string, unknown>) => ({ ...rest, v: 2, length: long }),
      (older: Record<string, unknown>) => ({ ...older, v: 3, unit: 'pt' }),
    ],
  };
  test.each([
    [
      { v: 1, long: 4 },
      { v: 3, length: 4, unit: 'pt' },
    ],
    [
      { v: 2, length: 4 },
      { v: 3, length: 4, unit: 'pt' },
    ],
    [
      { v: 3, length: 4 },
      { v: 3, length: 4 },
    ],
    [{ length: 4 }, { length: 4 }],
    [null, null],
    [[1], [1]],
  ])('%j', (older, now) => expect(bringUp(older, versions)).toEqual(now));
  test('from no version at all, where there was none at first', () => {
    const upgrades = [(older: Record<string, unknown>) => ({ ...older, v: 1 }), ...versions.upgrades];
    expect(bringUp({ long: 4 }, { ...versions, oldest: 0, upgrades })).toEqual({
      v: 3,
      length: 4,
      unit: 'pt',
    });
  });
  test('but not what is newer', () => {
    expect(() => bringUp({ v: 4 }, versions)).toThrow(VersionError);
  });
});

test.each(readdirSync(STORED))('%s is read by this version, and says the same', (name) => {
  const value = stored(name);
  if (name.startsWith('docket')) {
    const docket = readDocket(value);
    expect(docketSchema.parse(docket)).toEqual(docket);
    expect(docket.steps.map(({ id }) => id)).toEqual(
      (value as { steps: { id: string }[] }).steps.map(({ id }) => id),
    );
  } else if (name.startsWith('recipe')) expect(readRecipe(value).steps).toHaveLength(1);
  else expect(readKept('paper', value)).toMatchObject({ grammage: 90 });
});

test('every version has a stored example', () => {
  const names = readdirSync(STORED);
  for (let version = 1; version <= DOCKET_VERSION; version++)
    expect(names).toContain(`docket-${version}.json`);
  for (let version = 1; version <= RECIPE_VERSION; version++)
    expect(names).toContain(`recipe-${version}.json`);
});

test.each([
  ['newer', { ...(stored('docket-1.json') as object), version: 99 }, 'docket-newer', { version: 99 }],
  [
    'without a source',
    {
      ...(stored('docket-1.json') as object),
      steps: [{ id: 't', kind: 'take-in', source: null, name: 'x', where: { at: 'end' } }],
    },
    'docket-invalid',
    { reason: expect.objectContaining({ at: ['steps', 0, 'source'], why: 'type' }) as object },
  ],
  [
    'no object',
    null,
    'docket-invalid',
    { reason: expect.objectContaining({ at: [], why: 'type' }) as object },
  ],
])('a docket that is %s is refused with its reason', (_, value, code, data) => {
  expect(() => readDocket(value)).toThrow(expect.objectContaining({ code, data }) as Error);
});
