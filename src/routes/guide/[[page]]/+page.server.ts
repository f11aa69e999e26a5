import { error } from '@sveltejs/kit';
import { guidePage } from '$lib/server/guide';
import { spokenNow, t } from '$lib/words/language';

export function load({ params }: { params: { page?: string } }) {
  return guidePage(spokenNow().language, params.page) ?? error(404, t`There is no such page in the guide.`);
}
