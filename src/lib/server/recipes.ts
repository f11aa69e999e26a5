import { readRecipe, RecipeError, sourcesOfRecipe, type Recipe } from '../core/docket/recipe';
import { troubleFrom, type Trouble } from '../words/troubles';
import { actor } from './actor';
import { sweep } from './blobs';
import { db, transaction } from './db';
import { Problem } from './problem';

/** Reads a recipe that came from outside. Throws Problem 400. */
export function recipeFrom(value: unknown): Recipe {
  try {
    return readRecipe(value);
  } catch (error) {
    if (error instanceof RecipeError) throw new Problem(400, troubleFrom(error));
    throw error;
  }
}

/** All recipes in the order of their names. Recipes that cannot be read, because another version of Folder wrote them, stay as they are and are reported. */
export async function listRecipes(): Promise<{
  recipes: Recipe[];
  unread: { name: string; trouble: Trouble }[];
  /** Who saved them last, by their names, where people sign in. */
  by: Record<string, string>;
}> {
  const { rows } = await db().query<{ name: string; recipe: unknown; by: string | null }>(
    'select name, recipe, by from recipe order by lower(name)',
  );
  const [recipes, unread]: [Recipe[], { name: string; trouble: Trouble }[]] = [[], []];
  for (const { name, recipe } of rows)
    try {
      recipes.push(recipeFrom(recipe));
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      unread.push({ name, trouble: error.trouble });
    }
  const by = Object.fromEntries(rows.flatMap(({ name, by: who }) => (who ? [[name, who]] : [])));
  return { recipes, unread, by };
}

/** A recipe by its name. Throws Problem 404, or 400 where it cannot be read. */
export async function findRecipe(name: string): Promise<Recipe> {
  const { rows } = await db().query<{ recipe: unknown }>(
    'select recipe from recipe where lower(name) = lower($1)',
    [name],
  );
  if (!rows[0]) throw new Problem(404, { code: 'no-such-recipe', data: { name } });
  return recipeFrom(rows[0].recipe);
}

/** Saves a recipe; under a name that is there, as its next version. Jobs keep the steps that they were made with. Throws Problem. */
export async function saveRecipe(value: unknown): Promise<Recipe> {
  const recipe = recipeFrom(value);
  return transaction(async (client) => {
    await client.query('select pg_advisory_xact_lock(hashtextextended(lower($1), 7))', [recipe.name]);
    const { rows } = await client.query<{ name: string; version: number }>(
      'select name, version from recipe where lower(name) = lower($1)',
      [recipe.name],
    );
    const saved: Recipe = { ...recipe, version: rows[0] ? rows[0].version + 1 : 1 };
    const json = JSON.stringify(saved);
    if (rows[0])
      await client.query(
        'update recipe set name = $2, version = $3, recipe = $4, by = $5, changed_at = now() where name = $1',
        [rows[0].name, saved.name, saved.version, json, actor()],
      );
    else
      await client.query('insert into recipe (name, version, recipe, by) values ($1, 1, $2, $3)', [
        saved.name,
        json,
        actor(),
      ]);
    await client.query('delete from recipe_source where name = $1', [saved.name]);
    await client.query(
      'insert into recipe_source (name, sha256) select $1, sha256 from source where sha256 = any($2)',
      [saved.name, sourcesOfRecipe(saved)],
    );
    return saved;
  });
}

/** Deletes a recipe. What was made with it stays; drop folders bound to it wait. */
export async function dropRecipe(name: string): Promise<void> {
  await transaction(async (client) => {
    await client.query('delete from recipe where lower(name) = lower($1)', [name]);
    await sweep(client);
  });
}
