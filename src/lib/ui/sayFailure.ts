import { RecipeError } from '../core/docket/recipe';
import { sayTrouble } from '../words/troubles';
import { Refused } from './api';

/** Why something that was asked of the server, or of a recipe, did not come to be. */
export function sayFailure(error: unknown): string {
  if (error instanceof Refused) return sayTrouble(error.trouble);
  if (error instanceof RecipeError) return sayTrouble({ code: error.code, data: error.data });
  return 'The server does not answer. Try again in a moment.';
}
