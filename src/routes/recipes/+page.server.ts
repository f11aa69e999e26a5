import { listDropFolders } from '$lib/server/dropFolders';
import { listJobs } from '$lib/server/jobs';
import { listRecipes } from '$lib/server/recipes';
import { listRuns } from '$lib/server/runs';

export const load = async () => ({
  recipes: await listRecipes(),
  folders: await listDropFolders(),
  runs: await listRuns(),
  jobs: (await listJobs()).map(({ id, summary }) => ({ id, title: summary.title, pages: summary.pages })),
});
