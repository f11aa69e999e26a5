import { listWork } from '$lib/server/work';

export const load = async () => ({ work: await listWork() });
