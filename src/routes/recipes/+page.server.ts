import { listDropFolders } from '$lib/server/dropFolders';
import { listRecipes } from '$lib/server/recipes';
import { listWork } from '$lib/server/work';

export const load = async () => ({
  ...(await listRecipes()),
  folders: await listDropFolders(),
  work: await listWork(),
});
