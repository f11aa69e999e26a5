import * as z from 'zod';
import type { Pattern } from '../folding';
import { accordion } from './accordion';
import { closedGate } from './closedGate';
import { doubleParallel } from './doubleParallel';
import { french } from './french';
import { gate } from './gate';
import { half } from './half';
import { letter } from './letter';
import { map } from './map';
import { own } from './own';
import { rightAngle } from './rightAngle';
import { roll } from './roll';
import type { FoldKind, FoldSchema } from './foldKind';
import { entryOf } from '../../entries';
import { ofAnyKind, schemasOf } from '../../kinds';

export { turnedPattern, type Pattern } from '../folding';
export { MOST_PANELS, ownPatternSchema, withFoldAt, withPanels, type OwnPattern } from '../ownPattern';
export { SIGNATURE_PAGES, signaturePattern, type SignaturePages } from '../signaturePattern';

/** Every fold of a leaflet: a new one is a file here, one in words/folds, and its line. In the order in which they are offered. */
export const FOLDS = [
  half,
  letter,
  accordion,
  roll,
  gate,
  closedGate,
  doubleParallel,
  french,
  rightAngle,
  map,
  own,
] as const;

/** A usual fold by its name, or the preparer's own, drawn on the sheet. The front of the sheet is the outside of the folded piece. */
export const patternSchema = z.discriminatedUnion('fold', schemasOf(FOLDS));
export type PatternChoice = z.infer<typeof patternSchema>;
export type FoldName = PatternChoice['fold'];

/** What the records of all folds have in common. */
type AnyFold = Omit<FoldKind<FoldSchema>, 'kind' | 'fresh' | 'pattern'> & {
  kind: FoldName;
  fresh(from: Pattern): PatternChoice;
  pattern(choice: PatternChoice): Pattern;
};
const BY_NAME = new Map(FOLDS.map((fold) => [fold.kind, ofAnyKind<AnyFold>(fold)]));
/** The record of a fold. */
export const foldKind = (fold: FoldName): AnyFold => entryOf(BY_NAME, fold);

/** The panels and folds of a choice. */
export const patternOf = (choice: PatternChoice): Pattern => foldKind(choice.fold).pattern(choice);

/** A usual fold as it begins; own ones begin as the fold that is there, with its panels. */
export const freshPattern = (
  fold: FoldName,
  from: PatternChoice,
  panels?: Pick<Pattern, 'columns' | 'rows'>,
): PatternChoice =>
  foldKind(fold).fresh({
    ...patternOf(from),
    ...(panels ? { columns: panels.columns, rows: panels.rows } : {}),
  });
