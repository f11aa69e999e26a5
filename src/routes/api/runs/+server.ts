import { recipeValuesSchema } from '$lib/core/docket/recipe';
import { fileOf, jsonIn } from '$lib/server/body';
import { answer, Problem } from '$lib/server/problem';
import { orderRun } from '$lib/server/runs';
import * as z from 'zod';

/** A file of a batch, uploaded or as the body; the query says the recipe, its values, the batch and the file's name. */
export const POST = ({ request, url }) =>
  answer(async () => {
    const say = (name: string) => url.searchParams.get(name) ?? '';
    const values = recipeValuesSchema.safeParse(jsonIn(url, 'values', '{}'));
    if (!values.success || !z.uuid().safeParse(say('batch')).success || !say('name'))
      throw new Problem(400, { code: 'bad-replay' });
    return {
      id: await orderRun(say('recipe'), values.data, say('batch'), say('name'), fileOf(request, url)),
    };
  });
