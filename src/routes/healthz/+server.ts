import { health } from '$lib/server/health';

/** How Folder is: 200 where all is well, 503 where something is not. */
export const GET = async () => {
  const told = await health();
  return Response.json(told, { status: told.ok ? 200 : 503, headers: { 'cache-control': 'no-store' } });
};
