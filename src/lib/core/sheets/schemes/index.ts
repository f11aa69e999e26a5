import type * as z from 'zod';
import { byKind, unionOf, ofAnyKind } from '../../kinds';
import type { Book, PageList } from '../../model/page';
import { NO_JOB, type SheetJob, type SheetPlan } from '../plan';
import type { Press } from '../scheme';
import { flat } from './flat';
import { leaflet } from './leaflet';
import { none } from './none';
import type { SchemeKind, SchemeSchema } from './schemeKind';
import { signatures } from './signatures';
import { single } from './single';
import { spreads } from './spreads';
import { stitched } from './stitched';

export type { Flat } from '../settings/flat';
export type { Leaflet } from '../settings/leaflet';
export type { Signatures } from '../settings/signatures';
export type { Stitched } from '../settings/stitched';

/** Every kind of scheme: a new one is a file here, one in words/schemes, a form where it needs one, and its line. In the order in which they are offered. */
export const SCHEMES = [stitched, signatures, leaflet, flat, spreads, single, none] as const;

export const schemeSchema = unionOf(SCHEMES);
export type Scheme = z.infer<typeof schemeSchema>;
/** A scheme whose pages go through a press on stock. */
export type PressScheme = Extract<Scheme, { stock: object }>;

const BY_KIND = byKind(SCHEMES);
/** What the records of all kinds have in common, whatever kind a scheme is of. */
type AnyKind = Pick<SchemeKind<typeof none.schema>, 'makes'> & {
  schema: SchemeSchema;
  plain: Scheme;
  plan(list: PageList, scheme: Scheme, job: SheetJob): SheetPlan | undefined;
  suited?(plain: Scheme, list: PageList): { scheme?: Scheme; book?: Partial<Book> };
};
/** The record of a kind of scheme. */
export const schemeKind = (kind: Scheme['kind']): AnyKind => ofAnyKind(BY_KIND[kind]);

/** Every kind of scheme as it begins. */
export const PLAIN_SCHEMES = Object.fromEntries(SCHEMES.map(({ kind, plain }) => [kind, plain])) as {
  [Kind in Scheme['kind']]: Extract<Scheme, { kind: Kind }>;
};
export const DEFAULT_SCHEME = PLAIN_SCHEMES.stitched;

/** Works out the sheets of a page list. Undefined if there are no pages, or they go on no sheets. */
export const planSheets = (list: PageList, scheme: Scheme, job = NO_JOB): SheetPlan | undefined =>
  schemeKind(scheme.kind).plan(list, scheme, job);

/** A kind of scheme as it begins for pages: on the paper and with the marks of the scheme before it, and as it suits them. */
export function freshScheme(
  kind: Scheme['kind'],
  list: PageList,
  before: Scheme,
): { scheme: Scheme; book: Partial<Book> } {
  const { plain, suited, makes } = schemeKind(kind);
  const shared: Partial<Press> = {
    ...('stock' in before && 'stock' in plain ? { stock: before.stock, turn: before.turn } : {}),
    ...('marks' in before && 'marks' in plain ? { marks: before.marks } : {}),
  };
  const begun = { ...plain, ...shared };
  // The pages of bound leaves face each other.
  const book: Partial<Book> = makes === 'book' ? { facing: true } : {};
  return { scheme: begun, book, ...suited?.(begun, list) };
}
