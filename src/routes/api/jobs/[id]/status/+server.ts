import { answer } from '$lib/server/problem';
import { leave } from '$lib/server/presence';
import { pulseOf, statusOf } from '$lib/server/status';

/** How a job stands; to a window that says which it is (`window`), who else has it open, and the rest only where it changed (`tag`). */
export const GET = ({ params, url }) =>
  answer(() =>
    url.searchParams.has('window')
      ? pulseOf(params.id, Object.fromEntries(url.searchParams))
      : statusOf(params.id),
  );

/** A window no longer shows the job. */
export const DELETE = ({ params, url }) =>
  answer(() => leave(params.id, url.searchParams.get('window') ?? ''));
