import { answer } from '$lib/server/problem';
import { dropRun } from '$lib/server/runs';

export const DELETE = ({ params }) => answer(() => dropRun(params.id));
