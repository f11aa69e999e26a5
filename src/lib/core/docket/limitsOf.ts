import * as z from 'zod';

/** Between what a number has to lie; `whole` where it has no fraction. */
export interface Limits {
  least: number;
  most: number;
  whole: boolean;
}

/**
 * The limits that a schema sets to the number at a path, such as `stock.grammage`; `times` as much where a form shows it in
 * another unit, as percents. Of several forms that a value can have, the first with such a path counts. Throws if there is
 * no number at the path.
 */
export function limitsOf(schema: z.core.$ZodType, path: string, times = 1): Limits {
  const number = path.split('.').reduce<z.core.$ZodType | undefined>(innerOf, schema);
  const found = number && unwrapped(number);
  if (!(found instanceof z.ZodNumber)) throw new Error(`the schema has no number at ${path}`);
  const { least, most, whole } = limitsOfNumber(found);
  return { least: least * times, most: most * times, whole: whole && times === 1 };
}

/** The limits of a number by its schema. */
export const limitsOfNumber = (schema: z.ZodNumber): Limits => ({
  least: schema.minValue ?? -Infinity,
  most: schema.maxValue ?? Infinity,
  whole: schema.isInt,
});

const unwrapped = (schema: z.core.$ZodType): z.core.$ZodType =>
  schema instanceof z.ZodOptional || schema instanceof z.ZodDefault ? unwrapped(schema.unwrap()) : schema;

function innerOf(schema: z.core.$ZodType | undefined, key: string): z.core.$ZodType | undefined {
  const inner = schema && unwrapped(schema);
  if (inner instanceof z.ZodObject) return inner.shape[key];
  if (inner instanceof z.ZodArray) return innerOf(inner.element, key);
  if (inner instanceof z.ZodUnion || inner instanceof z.ZodDiscriminatedUnion)
    return inner.options.map((option) => innerOf(option, key)).find(Boolean);
  return undefined;
}
