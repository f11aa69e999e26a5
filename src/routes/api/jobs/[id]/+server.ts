import { deleteJob, readJob, saveDocket } from '$lib/server/jobs';
import { answer } from '$lib/server/problem';

export const GET = ({ params }) => answer(() => readJob(params.id));

export const PUT = ({ params, request }) =>
  answer(async () => {
    const { revision, docket } = (await request.json()) as { revision: number; docket: unknown };
    return saveDocket(params.id, revision, docket);
  });

export const DELETE = ({ params }) => answer(() => deleteJob(params.id));
