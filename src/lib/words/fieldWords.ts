/** What a field is called; with words for each value if there are few to choose from. */
export type FieldWords = string | { label: string; options: Record<string, string> };
