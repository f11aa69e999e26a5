import { answer } from '$lib/server/problem';
import { statusOf } from '$lib/server/status';

export const GET = ({ params }) => answer(() => statusOf(params.id));
