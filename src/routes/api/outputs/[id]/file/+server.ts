import { outputResponse } from '$lib/server/download';
import { answer } from '$lib/server/problem';

/** The file of an output, or an archive of its files. */
export const GET = ({ params }) => answer(() => outputResponse(params.id));
