import { jsonOf } from '$lib/server/body';
import { forget, keep, listKept } from '$lib/server/kept';
import { answer } from '$lib/server/problem';

export const GET = ({ params }) => answer(() => listKept(params.kind));

export const PUT = ({ params, request }) => answer(async () => keep(params.kind, await jsonOf(request)));

export const DELETE = ({ params, url }) =>
  answer(() => forget(params.kind, url.searchParams.get('name') ?? ''));
