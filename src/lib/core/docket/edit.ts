import type { Book, PageList } from '../model/page';
import { freshScheme, type Scheme } from '../sheets/schemes';
import type { Docket } from './docket';
import type { Format } from './format';
import type { Step } from './steps';

/** The docket with a step in the place of the one with its id, else at the end; with how the book lies where that is said too. */
export const withStep = (docket: Docket, step: Step, book: Book = docket.book): Docket => ({
  ...docket,
  book,
  steps: putIn(docket.steps, step),
});

/** The docket as another kind of work, on the same paper and with the same marks, its book as the scheme wants it. */
export function withScheme(docket: Docket, kind: Scheme['kind'], list: PageList): Docket {
  const { scheme, book } = freshScheme(kind, list, docket.scheme);
  return { ...docket, scheme, book: { ...docket.book, ...book } };
}

/** The docket with a format in the place of the one with its id, else added. */
export const withFormat = (docket: Docket, format: Format): Docket => ({
  ...docket,
  formats: putIn(docket.formats, format),
});

const putIn = <Each extends { id: string }>(list: readonly Each[], one: Each): Each[] =>
  list.some(({ id }) => id === one.id)
    ? list.map((each) => (each.id === one.id ? one : each))
    : [...list, one];
