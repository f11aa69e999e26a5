/** A sentence's first letter made large. */
export const capital = (text: string): string => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}`;
