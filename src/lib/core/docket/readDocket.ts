import { firstOf } from '../entries';
import { amissOf, REPORTED, type Amiss } from './amiss';
import { docketSchema, type Docket } from './docket';
import { bringUp, VersionError } from './versions';

/** The version of dockets that this program writes. */
export const DOCKET_VERSION = 1;

/**
 * What brings a docket of version n (from 1, at index n − 1) up to version n + 1: pure functions of JSON. A change of the
 * schema that older dockets do not satisfy by themselves raises DOCKET_VERSION and adds a function here, with a stored
 * example of the older version in the tests.
 */
const UPGRADES: readonly ((older: Record<string, unknown>) => Record<string, unknown>)[] = [];

/** A docket that cannot be read: `docket-newer` (data: version) or `docket-invalid` (data: reason, and where). */
export class DocketError extends Error {
  constructor(
    readonly code: 'docket-newer' | 'docket-invalid',
    readonly data: Record<string, string | number | Amiss>,
  ) {
    super(code);
  }
}

/** A docket from JSON of any version up to this program's, brought up to it. Throws DocketError. */
export function readDocket(json: unknown): Docket {
  let upToDate: unknown;
  try {
    upToDate = bringUp(json, { key: 'version', now: DOCKET_VERSION, upgrades: UPGRADES });
  } catch (error) {
    if (!(error instanceof VersionError)) throw error;
    throw new DocketError('docket-newer', { version: error.version });
  }
  const read = docketSchema.safeParse(upToDate, REPORTED);
  if (read.success) return read.data;
  throw new DocketError('docket-invalid', { reason: amissOf(firstOf(read.error.issues)) });
}
