import { dropOutput } from '$lib/server/outputs';
import { answer } from '$lib/server/problem';

export const DELETE = ({ params }) => answer(() => dropOutput(params.id));
