import * as z from 'zod';

/**
 * Kinds of one family (steps, schemes, outputs …) are records in one tuple, each with the schema of what it stands for. A new
 * kind is one more record and its line in the tuple; the union, the names and the lookup follow from it.
 */
interface Kind {
  kind: string;
  schema: z.ZodObject<{ kind: z.ZodLiteral<string> }>;
}

type SchemasOf<Kinds extends readonly { schema: unknown }[]> = { [At in keyof Kinds]: Kinds[At]['schema'] };

/** The schemas of a family's records, in their order. */
export const schemasOf = <const Kinds extends readonly { schema: unknown }[]>(kinds: Kinds) =>
  ofAnyKind<SchemasOf<Kinds>>(kinds.map(({ schema }) => schema));

/** The schema of any member of a family, told apart by `kind`. */
export const unionOf = <const Kinds extends readonly [Kind, ...Kind[]]>(kinds: Kinds) =>
  z.discriminatedUnion('kind', schemasOf(kinds));

/**
 * What a table has under a kind's name or a code, seen as of any kind: TypeScript cannot follow that it takes what is of that
 * very kind. This is the one place that steps over that.
 */
export const ofAnyKind = <Any>(record: unknown): Any => record as Any;

/** The record of each kind by its name. */
export const byKind = <Kinds extends readonly Kind[]>(
  kinds: Kinds,
): { [Name in Kinds[number]['kind']]: Extract<Kinds[number], { kind: Name }> } =>
  Object.fromEntries(kinds.map((each) => [each.kind, each])) as never;
