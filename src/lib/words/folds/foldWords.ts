import type { FieldWords } from '../fieldWords';

/** The words for one fold of a leaflet. */
export interface FoldWords {
  name: string;
  /** What the fields are called that are drawn from the schema. */
  fields?: Record<string, FieldWords>;
}
