import { copyJob } from '$lib/server/jobs';
import { answer } from '$lib/server/problem';

export const POST = ({ params }) => answer(async () => ({ id: await copyJob(params.id) }));
