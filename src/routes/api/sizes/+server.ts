import { jsonOf } from '$lib/server/body';
import { dropOwnSize, keepOwnSize, listOwnSizes } from '$lib/server/ownSizes';
import { answer } from '$lib/server/problem';

export const GET = () => answer(listOwnSizes);

export const PUT = ({ request }) => answer(async () => keepOwnSize(await jsonOf(request)));

export const DELETE = ({ url }) => answer(() => dropOwnSize(url.searchParams.get('name') ?? ''));
