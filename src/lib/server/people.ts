import { createHash, randomBytes } from 'node:crypto';
import * as z from 'zod';
import { db, transaction } from './db';
import { hashPassword, isPassword } from './passwords';
import { Problem } from './problem';
import { firstOf, keysOf } from '../core/entries';

/** Shortest password: OWASP Authentication Cheat Sheet, if nothing else than the password is asked for (NIST SP 800-63B). */
export const LEAST_PASSWORD = 15;
const MOST_PASSWORD = 200;
const nameSchema = z
  .string()
  .trim()
  .regex(/^[\p{L}\p{N}][\p{L}\p{N} ._'’-]{0,59}$/u);

/** A session ends after IDLE minutes without a request made by hand, and in any case after so many hours (OWASP Session Management Cheat Sheet: a working day). */
const idleMinutes = (): number => Number(process.env.FOLDER_SESSION_IDLE_MINUTES ?? 120);
const MOST_HOURS = 12;
/** Limits on failed attempts: for one name from one address, for one address, and for one name. Beyond one of them further attempts are refused for a while. */
const MOST_FAILURES = { pair: 5, address: 20, name: 50 };
const FAILURE_MINUTES = 15;

/** Gives a person an account, or a new password, which ends their sessions. Throws Problem. */
export async function addPerson(name: unknown, password: unknown): Promise<string> {
  const named = nameSchema.safeParse(name);
  if (!named.success) throw new Problem(400, { code: 'person-name' });
  if (
    typeof password !== 'string' ||
    [...password].length < LEAST_PASSWORD ||
    password.length > MOST_PASSWORD
  )
    throw new Problem(400, { code: 'password-short', data: { least: LEAST_PASSWORD, most: MOST_PASSWORD } });
  if (password.toLowerCase().includes(named.data.toLowerCase()) && password.length < named.data.length + 8)
    throw new Problem(400, { code: 'password-name' });
  const { rows } = await db().query<{ name: string }>(
    'insert into person (name, password) values ($1, $2) on conflict ((lower(name))) do update set password = $2 returning name',
    [named.data, await hashPassword(password)],
  );
  await db().query('delete from session where person = $1', [firstOf(rows).name]);
  return firstOf(rows).name;
}

/** Deletes a person's account and ends their sessions. Returns false if there is no such account. */
export async function removePerson(name: string): Promise<boolean> {
  return (await db().query('delete from person where lower(name) = lower($1)', [name])).rowCount === 1;
}

export async function listPeople(): Promise<{ name: string; createdAt: string; signedIn: boolean }[]> {
  const { rows } = await db().query<{ name: string; created_at: Date; signed_in: boolean }>(
    'select name, created_at, exists (select from session s where s.person = p.name) as signed_in from person p order by lower(name)',
  );
  return rows.map(({ name, created_at, signed_in }) => ({
    name,
    createdAt: created_at.toISOString(),
    signedIn: signed_in,
  }));
}

const keyOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Signs a person in and returns the token of a new session. Throws Problem: 401 where name or password is wrong, 429 where it was tried too often. */
export async function signIn(name: unknown, password: unknown, address: string): Promise<string> {
  if (
    typeof name !== 'string' ||
    typeof password !== 'string' ||
    password.length > MOST_PASSWORD ||
    name.length > 200
  )
    throw new Problem(401, { code: 'sign-in-wrong' });
  await countTry(name.trim(), address);
  const { rows } = await db().query<{ name: string; password: string }>(
    'select name, password from person where lower(name) = lower($1)',
    [name.trim()],
  );
  if (!(await isPassword(password, rows[0]?.password))) throw new Problem(401, { code: 'sign-in-wrong' });
  await db().query('delete from sign_in_failure where name = lower($1) and address = $2', [
    name.trim(),
    address,
  ]);
  const token = randomBytes(32).toString('base64url');
  await db().query('insert into session (token_sha256, person) values ($1, $2)', [
    keyOf(token),
    firstOf(rows).name,
  ]);
  return token;
}

/** Counts an attempt as failed before its password is looked at, so that many at once do not slip through: each waits until the one before is counted. An attempt that is refused does not count, so it does not extend the wait. Throws Problem 429. */
const countTry = (name: string, address: string): Promise<void> =>
  transaction(async (client) => {
    await client.query("select pg_advisory_xact_lock(hashtextextended('sign-in', 13))");
    await client.query('delete from sign_in_failure where at < now() - make_interval(mins => $1)', [
      FAILURE_MINUTES,
    ]);
    const { rows } = await client.query<{ pair: number; address: number; name: number }>(
      `select count(*) filter (where name = lower($1) and address = $2)::integer as pair,
         count(*) filter (where address = $2)::integer as address, count(*) filter (where name = lower($1))::integer as name
       from sign_in_failure`,
      [name, address],
    );
    const before = firstOf(rows);
    if (keysOf(MOST_FAILURES).some((by) => before[by] >= MOST_FAILURES[by]))
      throw new Problem(429, { code: 'sign-in-often', data: { minutes: FAILURE_MINUTES } });
    await client.query('insert into sign_in_failure (name, address) values (lower($1), $2)', [name, address]);
  });

/** The person whose session a token belongs to; undefined if it has ended. With `byHand` the request counts as activity and extends the session. */
export async function personOf(token: string, byHand: boolean): Promise<string | undefined> {
  const { rows } = await db().query<{ person: string }>(
    `update session set seen_at = case when $4 then now() else seen_at end
     where token_sha256 = $1 and seen_at > now() - make_interval(secs => $2 * 60) and created_at > now() - make_interval(hours => $3)
     returning person`,
    [keyOf(token), idleMinutes(), MOST_HOURS, byHand],
  );
  return rows[0]?.person;
}

export async function signOut(token: string): Promise<void> {
  await db().query('delete from session where token_sha256 = $1', [keyOf(token)]);
}

/** Deletes sessions that have ended. */
export async function forgetSessions(): Promise<void> {
  await db().query(
    'delete from session where seen_at < now() - make_interval(secs => $1 * 60) or created_at < now() - make_interval(hours => $2)',
    [idleMinutes(), MOST_HOURS],
  );
}
