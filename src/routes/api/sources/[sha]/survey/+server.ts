import { answer, Problem } from '$lib/server/problem';
import { surveysOf } from '$lib/server/sources';

export const GET = ({ params }) =>
  answer(async () => {
    const survey = (await surveysOf([params.sha]))[params.sha];
    if (!survey) throw new Problem(404, { code: 'no-such-source' });
    return survey;
  });
