import type { FieldWords } from '../fieldWords';

/** The words for one kind of scheme. */
export interface SchemeWords {
  /** What it is called. */
  name: string;
  /** What the pages become, said to somebody who has to choose. */
  said: string;
  /** What the fields are called that are drawn from the schema. */
  fields?: Record<string, FieldWords>;
}
