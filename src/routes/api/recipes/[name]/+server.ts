import { answer } from '$lib/server/problem';
import { dropRecipe, findRecipe } from '$lib/server/recipes';

export const GET = ({ params }) => answer(() => findRecipe(params.name));

export const DELETE = ({ params }) => answer(() => dropRecipe(params.name));
