import { openIntakes } from '$lib/server/intakes';
import { readJob } from '$lib/server/jobs';
import { measuringOf } from '$lib/server/measures';
import { listOutputs } from '$lib/server/outputs';
import { answer } from '$lib/server/problem';
import type { JobStatus } from '$lib/wire/told';

/** What moves while somebody looks on: the revision, the files on their way in, the sources being measured, the outputs. */
export const GET = ({ params }) =>
  answer(async (): Promise<JobStatus> => ({
    revision: (await readJob(params.id)).revision,
    intakes: await openIntakes(params.id),
    measuring: await measuringOf(params.id),
    outputs: await listOutputs(params.id),
  }));
