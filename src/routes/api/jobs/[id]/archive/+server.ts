import { archiveOf } from '$lib/server/jobArchive';
import { answer } from '$lib/server/problem';

/** The job as one ZIP: its docket, its files, and what was kept under names. */
export const GET = ({ params }) => answer(() => archiveOf(params.id));
