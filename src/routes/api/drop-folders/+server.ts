import { jsonOf } from '$lib/server/body';
import { addDropFolder, listDropFolders } from '$lib/server/dropFolders';
import { answer } from '$lib/server/problem';

export const GET = () => answer(listDropFolders);

export const POST = ({ request }) =>
  answer(async () => {
    await addDropFolder(await jsonOf(request));
    return listDropFolders();
  });
