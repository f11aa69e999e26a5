import * as z from 'zod';
import { mm } from '../../measure/unit';
import { sameSize } from '../../paper/sizes';
import { planFlat } from '../flat';
import { PLAIN_PRESS, pressFields, RUNS_OF_CELLS, START_CORNERS } from '../scheme';
import { defineScheme } from './schemeKind';

/**
 * *Flat*: pieces side by side, cut apart. *repeat*: a sheet for each piece, all its cells alike. *sequence*: piece after piece
 * from cell to cell. *stack*: piles of cut sheets, laid on one another, are in order. *gang*: pieces by the amounts wanted.
 */
const schema = z.object({
  kind: z.literal('flat'),
  ...pressFields,
  arrange: z.enum(['repeat', 'sequence', 'stack', 'gang']),
  goes: z.enum(RUNS_OF_CELLS),
  start: z.enum(START_CORNERS),
});
export type Flat = z.infer<typeof schema>;

export const flat = defineScheme(schema)({
  kind: 'flat',
  makes: 'cut',
  plain: {
    ...PLAIN_PRESS,
    kind: 'flat',
    copies: 'most',
    between: mm(6),
    arrange: 'repeat',
    goes: 'across',
    start: 'head-left',
  },
  plan: planFlat,
  /** Pages that cannot be fronts and backs in turn are pieces by themselves. */
  suited(_, { pages, book }) {
    const inPairs =
      pages.length % 2 === 0 && pages.every((page, n) => n % 2 || sameSize(page.trim, pages[n + 1]!.trim));
    return book.facing && !inPairs ? { book: { facing: false } } : {};
  },
});
