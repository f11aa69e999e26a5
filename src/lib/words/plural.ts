import { translated } from './language';

/** A count and what is counted: `1 page`, `2 pages`. */
export const plural = (count: number, one: string, many = `${one}s`): string =>
  count === 1 ? `1 ${translated(one)}` : `${count} ${translated(many)}`;
