import { objectOf } from '$lib/server/body';
import { deleteJob, readJob, saveDocket } from '$lib/server/jobs';
import { answer } from '$lib/server/problem';

export const GET = ({ params }) => answer(() => readJob(params.id));

export const PUT = ({ params, request }) =>
  answer(async () => {
    const { revision, docket } = await objectOf(request);
    return saveDocket(params.id, revision, docket);
  });

export const DELETE = ({ params }) => answer(() => deleteJob(params.id));
