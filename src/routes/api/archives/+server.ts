import { fileOf } from '$lib/server/body';
import { openArchive } from '$lib/server/jobArchive';
import { answer } from '$lib/server/problem';

/** Opens a job that was saved as a ZIP: the one that was uploaded, or the body. */
export const POST = ({ request, url }) =>
  answer(async () => ({ id: await openArchive(fileOf(request, url)) }));
