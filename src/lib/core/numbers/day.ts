/** The day on which something happens where it happens, as YYYY-MM-DD: the one notion of today. */
export const dayOf = (at: Date): string =>
  [at.getFullYear(), at.getMonth() + 1, at.getDate()].map((part) => String(part).padStart(2, '0')).join('-');
