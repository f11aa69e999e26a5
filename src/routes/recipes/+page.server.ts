import { listDropFolders } from '$lib/server/dropFolders';
import { listJobs } from '$lib/server/jobs';
import { listRecipes } from '$lib/server/recipes';
import { listWork } from '$lib/server/work';

export const load = async () => ({
  ...(await listRecipes()),
  folders: await listDropFolders(),
  work: await listWork(),
  jobs: (await listJobs()).map(({ id, summary }) => ({ id, title: summary.title, pages: summary.pages })),
});
