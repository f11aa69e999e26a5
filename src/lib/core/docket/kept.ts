import * as z from 'zod';
import { ownPatternSchema } from '../fold/patterns';
import { stockSchema } from '../paper/stock';
import { bringUp, VersionError } from './versions';
import { isRecord } from '../unknown';
import { ofAnyKind } from '../kinds';

/** What a preparer keeps under a name, for every job: papers, and folds of their own. */
export const KEPT = { paper: stockSchema, folds: ownPatternSchema } as const;
export type KeptKind = keyof typeof KEPT;
export interface Kept<Kind extends KeptKind> {
  name: string;
  settings: z.infer<(typeof KEPT)[Kind]>;
}
/** A name to keep something under. */
export const keptNameSchema = z.string().trim().min(1).max(60);

/** The version that kept things are stored with; at first they had none, which is version 0. */
export const KEPT_VERSION = 1;
const UPGRADES: readonly ((older: Record<string, unknown>) => Record<string, unknown>)[] = [
  (older) => ({ ...older, version: 1 }),
];

/** What is stored of a kept thing: its settings, with their version. */
export const storedKept = <Kind extends KeptKind>(settings: Kept<Kind>['settings']): object => ({
  ...settings,
  version: KEPT_VERSION,
});

/** A kept thing as it was stored, by this version or an older one; undefined if it cannot be read. */
export function readKept<Kind extends KeptKind>(
  kind: Kind,
  json: unknown,
): Kept<Kind>['settings'] | undefined {
  try {
    const upToDate = bringUp(json, { key: 'version', now: KEPT_VERSION, oldest: 0, upgrades: UPGRADES });
    if (!isRecord(upToDate)) return undefined;
    const { version: _, ...settings } = upToDate;
    const read = KEPT[kind].safeParse(settings);
    return read.success ? ofAnyKind(read.data) : undefined;
  } catch (error) {
    if (error instanceof VersionError) return undefined;
    throw error;
  }
}
