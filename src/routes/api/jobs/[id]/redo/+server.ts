import { objectOf } from '$lib/server/body';
import { walk } from '$lib/server/jobs';
import { answer } from '$lib/server/problem';

export const POST = ({ params, request }) =>
  answer(async () => walk(params.id, (await objectOf(request)).revision, 'redo'));
