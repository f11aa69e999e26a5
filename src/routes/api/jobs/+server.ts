import { emptyDocket } from '$lib/core/docket/docket';
import { objectOf } from '$lib/server/body';
import { createJob, docketFrom, listJobs } from '$lib/server/jobs';
import { answer } from '$lib/server/problem';

export const GET = () => answer(listJobs);

/** A new job: empty, or with the docket that is sent. */
export const POST = ({ request }) =>
  answer(async () => {
    const { docket } = await objectOf(request);
    return { id: await createJob(docket === undefined ? emptyDocket('New job') : docketFrom(docket)) };
  });
