import { listDropFolders } from '$lib/server/dropFolders';
import { listJobs } from '$lib/server/jobs';
import { listRecipes, unreadRecipes } from '$lib/server/recipes';
import { listWork } from '$lib/server/work';

export const load = async () => ({
  recipes: await listRecipes(),
  unread: await unreadRecipes(),
  folders: await listDropFolders(),
  work: await listWork(),
  jobs: (await listJobs()).map(({ id, summary }) => ({ id, title: summary.title, pages: summary.pages })),
});
