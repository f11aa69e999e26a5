import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { ownDatabase, server } from '../../../tests/database';
import { db } from './db';
import { addPerson, forgetSessions, listPeople, personOf, removePerson, signIn, signOut } from './people';
import { hashPassword, isPassword } from './passwords';
import { innerPath, isByItself, mustSignIn } from './signedIn';

const WORDS = 'moor lantern kettle nine';
const HERE = '192.0.2.1';

test('what is kept of a password is scrypt at the cost that OWASP names, with a salt of its own; letters count alike however they were typed', async () => {
  const [one, two] = [await hashPassword('päss wörd of letters'), await hashPassword('päss wörd of letters')];
  expect(one).toMatch(/^scrypt\$131072\$8\$1\$/);
  expect(one).not.toBe(two);
  expect(await isPassword('päss wörd of letters'.normalize('NFD'), one)).toBe(true);
  expect(await isPassword('pass word of letters', one)).toBe(false);
  expect(await isPassword('', undefined)).toBe(false);
});

test.each([
  [{ HOST: '127.0.0.1' }, false],
  [{ HOST: 'localhost', ORIGIN: 'http://localhost:3000' }, false],
  [{}, true],
  [{ HOST: '0.0.0.0' }, true],
  [{ HOST: '127.0.0.1', ORIGIN: 'https://folder.shop.example' }, true],
])('%j: people sign in: %s', (where, must) => expect(mustSignIn(where)).toBe(must));

test.each([
  ['/jobs/x?y=1', '/jobs/x?y=1'],
  ['//evil.example', '/'],
  ['/\\evil.example', '/'],
  ['https://evil.example', '/'],
  ['javascript:alert(1)', '/'],
  [null, '/'],
])('after signing in %s leads to %s', (to, path) => expect(innerPath(to)).toBe(path));

test('what a window asks for by itself keeps no session alive', () => {
  expect(isByItself('GET', '/api/jobs/x/status')).toBe(true);
  expect(isByItself('PUT', '/api/jobs/x')).toBe(false);
});

describe.skipIf(!server)('people', () => {
  let close: () => Promise<void>;
  beforeAll(async () => void (close = await ownDatabase('people')));
  afterAll(() => close());
  beforeEach(async () => {
    await db().query('truncate person, session, sign_in_failure');
    await addPerson('Ada Moor', WORDS);
  });
  const wrong = { status: 401, trouble: { code: 'sign-in-wrong' } };

  test('sign in with any capitals of their name, stay signed in, and sign out', async () => {
    const token = await signIn('ada moor', WORDS, HERE);
    expect(await personOf(token, true)).toBe('Ada Moor');
    expect(JSON.stringify((await db().query('select * from session')).rows)).not.toContain(token);
    await signOut(token);
    expect(await personOf(token, true)).toBeUndefined();
    await expect(signIn('ada moor', 'another', HERE)).rejects.toMatchObject(wrong);
    await expect(signIn('nobody', WORDS, HERE)).rejects.toMatchObject(wrong);
    await expect(signIn({ name: 'x' }, [], HERE)).rejects.toMatchObject(wrong);
  });

  test('have passwords that are long enough and not their name', async () => {
    for (const [name, password, code] of [
      ['Bert', 'fourteen chars', 'password-short'],
      ['Bert', 'x'.repeat(300), 'password-short'],
      ['Bartholomew Kettle', 'bartholomew kettle', 'password-name'],
      ['<b>', WORDS, 'person-name'],
      ['', WORDS, 'person-name'],
    ])
      await expect(addPerson(name, password)).rejects.toMatchObject({ trouble: { code } });
    expect((await listPeople()).map(({ name }) => name)).toEqual(['Ada Moor']);
  });

  test('are slowed down after five wrong attempts, others are not; also when all are made at once and the first are counted last', async () => {
    // Attempts with odd numbers are kept 0.1 s later than those that came after them.
    await db().query(`create function late() returns trigger language plpgsql as
        $$ begin if new.id % 2 = 1 then perform pg_sleep(0.1); end if; return null; end $$;
      create constraint trigger late after insert on sign_in_failure deferrable initially deferred for each row execute function late()`);
    const tries = await Promise.allSettled(
      Array.from({ length: 12 }, () => signIn('Ada Moor', 'wrong', HERE)),
    );
    const codes = tries.map((each) => (each as { reason: { status: number } }).reason.status);
    expect(codes.filter((code) => code === 401)).toHaveLength(5);
    expect(codes.filter((code) => code === 429)).toHaveLength(7);
    await db().query('drop function late cascade');
    await expect(signIn('Ada Moor', WORDS, HERE)).rejects.toMatchObject({ status: 429 });
    expect(await signIn('Ada Moor', WORDS, '192.0.2.2')).toBeTruthy();
    await db().query("update sign_in_failure set at = at - interval '16 minutes'");
    expect(await signIn('Ada Moor', WORDS, HERE)).toBeTruthy();
  });

  test('are signed out after hours of nothing, after a day’s work, with a new password, and when they are removed', async () => {
    const old = async (what: string) => {
      const token = await signIn('Ada Moor', WORDS, HERE);
      await db().query(what);
      const person = await personOf(token, false);
      await db().query('delete from session');
      return person;
    };
    expect(await old("update session set seen_at = now() - interval '119 minutes'")).toBe('Ada Moor');
    expect(await old("update session set seen_at = now() - interval '121 minutes'")).toBeUndefined();
    expect(await old("update session set created_at = now() - interval '13 hours'")).toBeUndefined();
    const token = await signIn('Ada Moor', WORDS, HERE);
    await addPerson('ADA MOOR', 'another handful of words');
    expect(await personOf(token, true)).toBeUndefined();
    const again = await signIn('Ada Moor', 'another handful of words', HERE);
    await forgetSessions();
    expect(await personOf(again, true)).toBe('Ada Moor');
    expect(await removePerson('ada moor')).toBe(true);
    expect(await personOf(again, true)).toBeUndefined();
    expect(await removePerson('ada moor')).toBe(false);
  });
});
