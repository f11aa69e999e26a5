import type * as z from 'zod';
import type { Box } from '../../measure/box';
import type { Item } from '../../model/surface';
import type { PlacedForme, PlacedSlot } from '../forme';
import type { SheetJob, SheetLine } from '../plan';

/** What the settings of several marks have in common, in points; `date` is a day as YYYY-MM-DD. */
export interface MarkSizes {
  length?: number | undefined;
  /** Their least distance from the trim; they keep clear of the bleed all the same. */
  offset?: number | undefined;
  weight?: number | undefined;
  date?: string | undefined;
}

export type Axis = 'vertical' | 'horizontal';

/** The front of a sheet, and how lines are put on it. */
export interface LineContext {
  placed: readonly PlacedForme[];
  slots: readonly PlacedSlot[];
  /** All trims together. */
  trims: Box;
  /** What was put so far. */
  lines: Iterable<SheetLine>;
  /** Puts a line, as far as nothing is in its way; returns whether anything of it is left. */
  put(kind: SheetLine['kind'], line: readonly [x0: number, y0: number, x1: number, y1: number]): boolean;
  /** Puts a mark beyond both ends of a line that is cut or folded; returns whether one of them is there. */
  ends(kind: SheetLine['kind'], axis: Axis, at: number, from: number, to: number): boolean;
}

/** What the slug line says of a sheet. */
export interface SheetWords {
  job: SheetJob;
  number: number;
  of: number;
  name?: string;
}

/** One side of a sheet as it is seen, and how things are put in its margins. */
export interface MarginContext {
  side: 'front' | 'back';
  settings: MarkSizes;
  /** All bleeds together. */
  around: Box;
  /** How far the trim marks begin, and how far they end, beyond the bleeds. */
  reach: number;
  far: number;
  say: SheetWords;
  /** Takes a place in the margin, where it is free. */
  take(box: Box): boolean;
}

/** One kind of printer's mark. Marks are lines at the trims and folds, or things in the margins beyond them. */
export interface MarkKind<Name extends string, Setting extends z.ZodType> {
  kind: Name;
  /** What the settings hold of it: whether it is there, or what it says. */
  setting: Setting;
  /** Lines on the front of a sheet; the back has those behind them. */
  lines?(context: LineContext): void;
  /** How much of a sheet's height, at its head and at its foot, it takes beyond the trim marks. */
  room?: number;
  /** Things in the margin of a side; undefined if there is no room for them. */
  draw?(context: MarginContext, setting: NonNullable<z.infer<Setting>>): Item[] | undefined;
}

export const defineMark = <const Name extends string, Setting extends z.ZodType>(
  kind: MarkKind<Name, Setting>,
): MarkKind<Name, Setting> => kind;

/** Whether a setting asks for its mark. */
export const isAsked = (setting: unknown): boolean =>
  typeof setting === 'string' ? setting.trim() !== '' : setting === true;
