import { jsonOf } from '$lib/server/body';
import { dropOwnStamp, keepOwnStamp, listOwnStamps } from '$lib/server/ownStamps';
import { answer } from '$lib/server/problem';

export const GET = () => answer(listOwnStamps);

export const PUT = ({ request }) => answer(async () => keepOwnStamp(await jsonOf(request)));

export const DELETE = ({ url }) => answer(() => dropOwnStamp(url.searchParams.get('name') ?? ''));
