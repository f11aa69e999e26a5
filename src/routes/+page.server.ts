import { firstJobs } from '$lib/server/jobList';
import { sayPersonCame } from '$lib/server/presence';
import { jobQueryOf } from '$lib/wire/jobQuery';

export const load = async ({ url }) => {
  const query = jobQueryOf(url.searchParams);
  // Where that fails, the first task waits a little longer.
  void sayPersonCame().catch(() => undefined);
  return { query, ...(await firstJobs(query)) };
};
