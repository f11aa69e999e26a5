import { mm } from '../../measure/unit';
import { sameSize } from '../../paper/sizes';
import { planFlat } from '../flat';
import { PLAIN_PRESS } from '../scheme';
import { flatSchema } from '../settings/flat';
import { defineScheme } from './schemeKind';
import { entryAt } from '../../entries';

export const flat = defineScheme(flatSchema)({
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
      pages.length % 2 === 0 &&
      pages.every((page, n) => n % 2 || sameSize(page.trim, entryAt(pages, n + 1).trim));
    return book.facing && !inPairs ? { book: { facing: false } } : {};
  },
});
