import { outputResponse } from '$lib/server/download';
import { answer } from '$lib/server/problem';

/** One of the files of an output, counted from 0. */
export const GET = ({ params }) => answer(() => outputResponse(params.id, Number(params.n)));
