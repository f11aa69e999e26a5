import { innerPath } from '$lib/server/signedIn';

export const load = ({ url }) => ({ to: innerPath(url.searchParams.get('to')) });
