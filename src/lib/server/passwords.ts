import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify<string, Buffer, number, ScryptOptions, Buffer>(scrypt);

/** Cost of scrypt as the OWASP Password Storage Cheat Sheet has it: N = 2^17, r = 8 (1024 bytes), p = 1. */
const COST = { N: 2 ** 17, r: 8, p: 1 };
const [SALT_BYTES, HASH_BYTES] = [16, 32];
/** scrypt needs 128 · N · r bytes. */
const memoryFor = ({ N, r }: { N: number; r: number }): number => 128 * N * r + (1 << 20);

/** A password in one spelling of its letters, whatever keyboard it came from (RFC 8265, NFC). */
const spelt = (password: string): string => password.normalize('NFC');

/** What is stored of a password: the cost, a random salt, and the scrypt hash. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(SALT_BYTES);
  const hash = await derive(spelt(password), salt, HASH_BYTES, { ...COST, maxmem: memoryFor(COST) });
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), hash.toString('base64')].join('$');
}

/** Whether a password matches the stored hash. Takes the same time in every case, also if no hash is stored. */
export async function isPassword(password: string, kept: string | undefined): Promise<boolean> {
  const [, N, r, p, salt, hash] = (kept ?? NOBODY).split('$');
  const cost = { N: Number(N), r: Number(r), p: Number(p) };
  const wanted = Buffer.from(hash!, 'base64');
  const made = await derive(spelt(password), Buffer.from(salt!, 'base64'), wanted.length, {
    ...cost,
    maxmem: memoryFor(cost),
  });
  return timingSafeEqual(made, wanted) && kept !== undefined;
}

/** A hash that no password matches; comparing with it costs as much as with a real one. */
const NOBODY = [
  'scrypt',
  COST.N,
  COST.r,
  COST.p,
  Buffer.alloc(SALT_BYTES).toString('base64'),
  Buffer.alloc(HASH_BYTES).toString('base64'),
].join('$');
