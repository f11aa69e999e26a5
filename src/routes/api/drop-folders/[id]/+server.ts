import { jsonOf } from '$lib/server/body';
import { changeDropFolder, dropDropFolder, listDropFolders } from '$lib/server/dropFolders';
import { answer } from '$lib/server/problem';

export const PATCH = ({ params, request }) =>
  answer(async () => {
    await changeDropFolder(params.id, await jsonOf(request));
    return listDropFolders();
  });

export const DELETE = ({ params }) =>
  answer(async () => {
    await dropDropFolder(params.id);
    return listDropFolders();
  });
