import { rawDocket } from '$lib/server/jobs';
import { asFile } from '$lib/server/download';
import { answer } from '$lib/server/problem';

/** The docket of a job as it is stored, whether this Folder can read it or not. */
export const GET = ({ params }) =>
  answer(async () => Response.json(await rawDocket(params.id), { headers: asFile('docket.json') }));
