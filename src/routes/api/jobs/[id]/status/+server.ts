import { openIntakes } from '$lib/server/intakes';
import { readJob } from '$lib/server/jobs';
import { listOutputs } from '$lib/server/outputs';
import { answer } from '$lib/server/problem';

/** What moves while somebody looks on: the revision, the files on their way in, the outputs. */
export const GET = ({ params }) =>
  answer(async () => ({
    revision: (await readJob(params.id)).revision,
    intakes: await openIntakes(params.id),
    outputs: await listOutputs(params.id),
  }));
