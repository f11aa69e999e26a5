/** The book's four edges and their words, in the order that forms show them. */
export const BOOK_EDGES = [
  ['head', 'Head'],
  ['foot', 'Foot'],
  ['spine', 'Spine'],
  ['fore', 'Fore edge'],
] as const;

/** A page's four sides. */
export const PAGE_SIDES = [
  ['head', 'Head'],
  ['foot', 'Foot'],
  ['left', 'Left'],
  ['right', 'Right'],
] as const;
