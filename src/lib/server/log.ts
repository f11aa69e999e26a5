import pino from 'pino';

/**
 * The log: one JSON object a line on standard output. `FOLDER_LOG` says from which level on (`trace` … `fatal`, `silent`);
 * `info` if nothing is said.
 */
export const log = pino({
  level: process.env.FOLDER_LOG ?? (process.env.VITEST ? 'silent' : 'info'),
  base: { pid: process.pid, part: process.env.FOLDER_PART ?? 'tool' },
  timestamp: pino.stdTimeFunctions.isoTime,
});
