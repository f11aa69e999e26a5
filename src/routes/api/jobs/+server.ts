import { docketSchema, emptyDocket } from '$lib/core/docket/docket';
import { createJob, listJobs } from '$lib/server/jobs';
import { answer, Problem } from '$lib/server/problem';

export const GET = () => answer(listJobs);

/** A new job: empty, or with the docket that is sent. */
export const POST = ({ request }) =>
  answer(async () => {
    const body = (await request.json().catch(() => ({}))) as { docket?: unknown };
    if (body.docket === undefined) return { id: await createJob(emptyDocket('New job')) };
    const docket = docketSchema.safeParse(body.docket);
    if (!docket.success)
      throw new Problem(400, {
        code: 'docket-invalid',
        data: { reason: docket.error.issues[0]?.message ?? '' },
      });
    return { id: await createJob(docket.data) };
  });
