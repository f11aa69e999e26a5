import { t } from '../words/language';
import { RecipeError } from '../core/docket/recipe';
import { sayTrouble } from '../words/troubles';
import { Refused } from './api';

/** Why a request to the server, or a recipe, failed. */
export function sayFailure(error: unknown): string {
  if (error instanceof Refused) return sayTrouble(error.trouble);
  if (error instanceof RecipeError) return sayTrouble({ code: error.code, data: error.data });
  return t`The server does not answer. Try again in a moment.`;
}
