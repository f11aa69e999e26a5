import { firstJobs } from '$lib/server/jobList';
import { jobQueryOf } from '$lib/wire/jobQuery';

export const load = async ({ url }) => {
  const query = jobQueryOf(url.searchParams);
  return { query, ...(await firstJobs(query)) };
};
