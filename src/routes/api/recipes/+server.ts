import { jsonOf } from '$lib/server/body';
import { answer } from '$lib/server/problem';
import { listRecipes, saveRecipe } from '$lib/server/recipes';

export const GET = () => answer(listRecipes);

/** Saves a recipe, made here or brought along. */
export const PUT = ({ request }) => answer(async () => saveRecipe(await jsonOf(request)));
