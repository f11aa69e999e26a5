import { emptyDocket } from '$lib/core/docket/docket';
import { objectOf } from '$lib/server/body';
import { listJobs } from '$lib/server/jobList';
import { createJob, docketFrom } from '$lib/server/jobs';
import { answer } from '$lib/server/problem';
import { jobQueryOf } from '$lib/wire/jobQuery';

const whole = (said: string | null): number | undefined =>
  said !== null && /^\d{1,9}$/.test(said) ? Number(said) : undefined;

/** The jobs that are searched for; where the query says so, only so many (`count`) from one on (`from`). */
export const GET = ({ url: { searchParams } }) =>
  answer(() =>
    listJobs(jobQueryOf(searchParams), whole(searchParams.get('from')), whole(searchParams.get('count'))),
  );

/** A new job: empty, or with the docket that is sent. */
export const POST = ({ request }) =>
  answer(async () => {
    const { docket } = await objectOf(request);
    return { id: await createJob(docket === undefined ? emptyDocket('New job') : docketFrom(docket)) };
  });
