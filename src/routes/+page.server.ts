import { listJobs } from '$lib/server/jobs';

export const load = async () => ({ jobs: await listJobs() });
