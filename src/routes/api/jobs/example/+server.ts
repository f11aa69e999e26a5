import { openExample } from '$lib/server/example';
import { answer } from '$lib/server/problem';

/** A new job with an example in it. */
export const POST = () => answer(async () => ({ id: await openExample() }));
