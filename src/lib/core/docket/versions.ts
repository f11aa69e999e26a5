import { isRecord } from '../unknown';

/** What is stored is of a newer version than this program knows. */
export class VersionError extends Error {
  constructor(readonly version: number) {
    super(`version ${version}`);
  }
}

/** How stored JSON of one kind is brought up to date. */
export interface Versions {
  /** The property that holds the version, a whole number. */
  key: string;
  /** The version of today. */
  now: number;
  /** The oldest version there was: 1, or 0 where it was written without a version. */
  oldest?: 0 | 1;
  /** From each older version, the oldest first, to the one after it. */
  upgrades: readonly ((older: Record<string, unknown>) => Record<string, unknown>)[];
}

/**
 * Brings stored JSON up to the version of today, one version at a time. What has no readable version, or is no object, is
 * returned as it is: its schema refuses it. Throws VersionError if it is newer.
 */
export function bringUp(json: unknown, { key, now, oldest = 1, upgrades }: Versions): unknown {
  if (!isRecord(json)) return json;
  let value = json;
  const version = value[key] ?? (oldest === 0 ? 0 : undefined);
  if (typeof version !== 'number' || !Number.isInteger(version)) return json;
  if (version > now) throw new VersionError(version);
  for (const upgrade of upgrades.slice(version - oldest)) value = upgrade(value);
  return value;
}
