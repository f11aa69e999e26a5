import * as z from 'zod';
import { docketSchema } from '../lib/core/docket/docket';
import { recipeSchema } from '../lib/core/docket/recipe';
import { finishPlanSchema } from '../lib/core/finish/operations';

const jsonOf = (schema: z.ZodType): string =>
  `${JSON.stringify(z.toJSONSchema(schema, { io: 'input' }), null, 2)}\n`;

/** The JSON Schema of a docket, as text. */
export const docketSchemaJson = (): string => jsonOf(docketSchema);
/** The JSON Schema of a recipe, as text. */
export const recipeSchemaJson = (): string => jsonOf(recipeSchema);
/** The JSON Schema of a finishing plan, as text. */
export const finishingSchemaJson = (): string => jsonOf(finishPlanSchema);
