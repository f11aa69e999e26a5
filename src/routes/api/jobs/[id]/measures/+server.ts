import { stopMeasures } from '$lib/server/measures';
import { answer } from '$lib/server/problem';

/** Cancels the reading of a job's pages. */
export const DELETE = ({ params }) => answer(() => stopMeasures(params.id));
