import * as z from 'zod';
import { docketSchema } from '../lib/core/docket/docket';

/** The JSON Schema of a docket, as text. */
export const docketSchemaJson = (): string =>
  `${JSON.stringify(z.toJSONSchema(docketSchema, { io: 'input' }), null, 2)}\n`;
