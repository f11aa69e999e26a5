import type { Trouble } from '../words/troubles';
import { reportFault } from './faults';
import { troubleOf } from './trouble';

/** A request that cannot be met: its HTTP status, and the trouble as code and data. `body` is sent along. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly trouble: Trouble,
    readonly body: Record<string, unknown> = {},
  ) {
    super(trouble.code);
  }
}

/** HTTP statuses of troubles that no request is to blame for. */
const STATUS: Record<string, number> = { 'disk-full': 507, 'database-away': 503 };

/** Answers a request with JSON, or with the response that the work gives; a Problem becomes its status and trouble. */
export async function answer(work: () => Promise<unknown>): Promise<Response> {
  try {
    const given = await work();
    return given instanceof Response ? given : Response.json(given ?? {});
  } catch (error) {
    if (error instanceof Problem)
      return Response.json({ trouble: error.trouble, ...error.body }, { status: error.status });
    let trouble = troubleOf(error);
    if (!trouble) {
      void reportFault('a request', error);
      trouble = { code: 'server-fault' };
    }
    return Response.json({ trouble }, { status: STATUS[trouble.code] ?? 500 });
  }
}
