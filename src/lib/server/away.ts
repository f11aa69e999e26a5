import { isRecord } from '../core/unknown';

/** SQLSTATE classes and codes, and codes of the system, which say that the database cannot be reached just now (PostgreSQL, appendix A). */
const AWAY: ReadonlySet<unknown> = new Set([
  ...['57P01', '57P02', '57P03', '53300', '08000', '08001', '08003', '08004', '08006'],
  ...[
    'ECONNREFUSED',
    'ECONNRESET',
    'EPIPE',
    'ETIMEDOUT',
    'EHOSTUNREACH',
    'ENETUNREACH',
    'ENOTFOUND',
    'EAI_AGAIN',
  ],
]);
/** What node-postgres says without a code. */
const AWAY_WORDS =
  /^(Connection terminated|Client has encountered a connection error|timeout exceeded when trying to connect|Query read timeout|Client was closed)/;

/** Whether an error says that the database is away, rather than that something is wrong with what was asked of it. */
export function isAway(error: unknown): boolean {
  const { code, message, errors } = isRecord(error) ? error : {};
  return (
    AWAY.has(code) ||
    (typeof message === 'string' && AWAY_WORDS.test(message)) ||
    (Array.isArray(errors) && errors.length > 0 && errors.every(isAway))
  );
}
