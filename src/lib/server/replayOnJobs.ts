import { troubleFrom } from '../words/troubles';
import * as z from 'zod';
import { amissOf, REPORTED } from '../core/docket/amiss';
import { docketSchema } from '../core/docket/docket';
import { RecipeError, recipeValuesSchema, withRecipe } from '../core/docket/recipe';
import { transaction } from './db';
import { judge } from './judge';
import { lockJob, pushState, readJob } from './jobs';
import { Problem } from './problem';
import { findRecipe } from './recipes';
import { tryValues } from './runs';
import type { ReplayedState } from '../wire/told';
import { firstOf } from '../core/entries';

const askedSchema = z.object({
  jobs: z.array(z.uuid()).min(1).max(500),
  values: recipeValuesSchema.default({}),
});

/** Replays a recipe on jobs, each as one change that undo takes back whole; one that cannot take it stays as it is. Throws Problem. */
export async function replayOnJobs(name: string, value: unknown): Promise<ReplayedState[]> {
  const asked = askedSchema.safeParse(value);
  if (!asked.success) throw new Problem(400, { code: 'bad-replay' });
  const { jobs, values } = asked.data;
  const recipe = await findRecipe(name);
  tryValues(recipe, values);
  const results: ReplayedState[] = [];
  for (const job of jobs)
    results.push(
      await transaction(async (client): Promise<ReplayedState> => {
        await lockJob(client, job);
        const { docket } = await readJob(job, client);
        const said = { job, title: docket.title };
        try {
          const read = docketSchema.safeParse(withRecipe(docket, recipe, values), REPORTED);
          if (!read.success)
            throw new RecipeError('recipe-invalid', { reason: amissOf(firstOf(read.error.issues)) });
          const next = read.data;
          const { summary, findings } = await judge(next, client);
          await pushState(client, job, next);
          return {
            ...said,
            pages: summary.pages,
            findings,
          };
        } catch (error) {
          if (!(error instanceof RecipeError)) throw error;
          return { ...said, pages: 0, findings: [], trouble: troubleFrom(error) };
        }
      }),
    );
  return results;
}
