import { error } from '@sveltejs/kit';
import { readJob } from '$lib/server/jobs';
import { Problem } from '$lib/server/problem';
import { sayTrouble } from '$lib/words/troubles';
import { surveysOfJob } from '$lib/server/sources';

export const load = async ({ params }) => {
  try {
    return { job: await readJob(params.id), surveys: await surveysOfJob(params.id) };
  } catch (problem) {
    if (problem instanceof Problem && problem.status === 404)
      error(404, 'There is no such job. It may have been deleted.');
    if (problem instanceof Problem && problem.status === 422)
      error(422, { message: sayTrouble(problem.trouble), job: params.id });
    throw problem;
  }
};
