import type { Book } from '../../core/model/page';

const UPRIGHT = [
  ['head', 'Head'],
  ['foot', 'Foot'],
  ['spine', 'Spine'],
  ['fore', 'Fore edge'],
] as const;
/** Bound at the head, a book lies turned: its head is at the right. */
const TURNED = [
  ['spine', 'Spine'],
  ['fore', 'Fore edge'],
  ['foot', 'Left'],
  ['head', 'Right'],
] as const;

/** A book's four edges and their words, in the order that forms show them. */
export const bookEdges = ({ spine }: Book) => (spine === 'head' ? TURNED : UPRIGHT);

/** A page's four sides. */
export const PAGE_SIDES = [
  ['head', 'Head'],
  ['foot', 'Foot'],
  ['left', 'Left'],
  ['right', 'Right'],
] as const;
