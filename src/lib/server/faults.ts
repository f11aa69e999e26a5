import { db } from './db';
import { log } from './log';

/** Faults kept for whoever runs Folder; older ones are deleted. */
const MOST_FAULTS = 500;
const MOST_TEXT = 8000;

/** An unforeseen error: what was being done, when, and where in the program. */
export interface Fault {
  at: string;
  part: string;
  what: string;
  reason: string;
  stack: string;
}

/** Puts an unforeseen error into the log, with its stack, and keeps it in the database for `npm run faults`. Never throws. */
export async function reportFault(what: string, error: unknown, more: object = {}): Promise<void> {
  const known = error instanceof Error ? error : new Error(String(error));
  log.error({ err: known, ...more }, what);
  const stderr = 'stderr' in known ? String(known.stderr) : '';
  const text = [known.stack ?? '', stderr && `standard error:\n${stderr}`].filter(Boolean).join('\n');
  try {
    await db().query('insert into fault (part, what, reason, stack) values ($1, $2, $3, $4)', [
      process.env.FOLDER_PART ?? 'tool',
      storable(what),
      storable(known.message),
      storable(text),
    ]);
    await db().query('delete from fault where id <= (select max(id) from fault) - $1', [MOST_FAULTS]);
  } catch (lost) {
    log.warn({ err: lost }, 'a fault could not be kept in the database');
  }
}

/** Text that PostgreSQL can hold: without U+0000, and not endless. */
const storable = (text: string): string => text.replaceAll('\0', '').slice(0, MOST_TEXT).toWellFormed();

/** The latest faults, newest first. */
export async function listFaults(most = 50): Promise<Fault[]> {
  const { rows } = await db().query<Omit<Fault, 'at'> & { at: Date }>(
    'select at, part, what, reason, stack from fault order by id desc limit $1',
    [most],
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
