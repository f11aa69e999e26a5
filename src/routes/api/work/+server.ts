import { answer } from '$lib/server/problem';
import { listWork } from '$lib/server/work';

export const GET = () => answer(listWork);
