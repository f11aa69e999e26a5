import { error } from '@sveltejs/kit';
import { outputKind } from '$lib/core/handover/outputs';
import { readJob } from '$lib/server/jobs';
import { listOutputs } from '$lib/server/outputs';
import { Problem } from '$lib/server/problem';

export const load = async ({ params }) => {
  try {
    const { docket } = await readJob(params.id);
    const output = (await listOutputs(params.id)).find(({ id }) => id === params.output);
    if (output?.state === 'done' && outputKind(output.spec.kind).sent)
      return { job: params.id, title: docket.title, unit: docket.unit, output };
  } catch (problem) {
    if (!(problem instanceof Problem) || problem.status !== 404) throw problem;
  }
  error(404, 'There is nothing that a stand-in received here. It may have been deleted.');
};
