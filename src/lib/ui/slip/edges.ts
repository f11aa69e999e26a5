import { t } from '../../words/language';
import type { Book } from '../../core/model/page';

const upright = () =>
  [
    ['head', t`Head`],
    ['foot', t`Foot`],
    ['spine', t`Spine`],
    ['fore', t`Fore edge`],
  ] as const;
/** Bound at the head, a book lies turned: its head is at the right. */
const turned = () =>
  [
    ['spine', t`Spine`],
    ['fore', t`Fore edge`],
    ['foot', t`Left`],
    ['head', t`Right`],
  ] as const;

/** A book's four edges and their words, in the order that forms show them. */
export const bookEdges = ({ spine }: Book) => (spine === 'head' ? turned() : upright());

/** A page's four sides. */
export const pageSides = () =>
  [
    ['head', t`Head`],
    ['foot', t`Foot`],
    ['left', t`Left`],
    ['right', t`Right`],
  ] as const;
