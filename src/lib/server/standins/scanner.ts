import { randomInt } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { OnGlass } from '../../standins/glass';
import type { Scanning } from '../../standins/ruleBook';
import { transaction } from '../db';
import { openDirectory } from '../dropFolders';
import { entryAt } from '../../core/entries';

/** Faults that the scanner stand-in can be told to make. */
export const SCAN_FAULTS = [
  'turned',
  'fronts-backs',
  'sheet-missing',
  'double-feed',
  'cut-off',
  'noise',
  'shadow',
  'dirty-glass',
  'mixed-sizes',
] as const;
/** What the stand-in delivers: one PDF with the words behind its scans, or a directory of pictures. */
export const SCAN_KINDS = ['pdf', 'jpeg', 'tiff'] as const;
export type ScanKind = (typeof SCAN_KINDS)[number];
export type ScanFault = (typeof SCAN_FAULTS)[number];

const TURNS = [0, 90, 180, 270] as const;

/** How the stand-in scans, other each time: how scans lie on the glass, and what goes wrong. */
function scanning(faults: readonly ScanFault[], from: (most: number) => number): Scanning {
  const lies = Array.from({ length: 8 }, () => ({
    turn: faults.includes('turned') && from(3) === 0 ? entryAt(TURNS, 1 + from(3)) : (0 as const),
    skew: (from(13) - 6) / 10,
    ...(faults.includes('mixed-sizes') ? { beyond: 3 * from(6) } : {}),
  }));
  return {
    lies,
    ...(faults.includes('fronts-backs') ? { frontsFirst: true } : {}),
    ...(faults.includes('sheet-missing') ? { without: [1 + from(3)] } : {}),
  };
}

/** What its scans are like, other each time. */
const glassOf = (faults: readonly ScanFault[], kind: ScanKind): Omit<OnGlass, 'ppi'> => ({
  noise: faults.includes('noise') ? 9 : 2,
  shadow: faults.includes('shadow') ? 0.35 : 0.1,
  specks: faults.includes('dirty-glass') ? 60 : 0,
  beyond: 4,
  ...(kind === 'jpeg' ? { quality: 75 } : {}),
});

/**
 * The scanner stand-in, a small simulated device: delivers a demo booklet as raw scans into a drop folder, under a name of
 * its own. As scanners do it writes under a hidden name first. Throws Problem. Returns the name.
 */
export async function deliver(
  folder: string,
  faults: readonly ScanFault[],
  kind: ScanKind = 'pdf',
): Promise<string> {
  const path = await openDirectory(folder);
  const stamp = new Date()
    .toISOString()
    .replace(/[-:]|\.\d+Z$/g, '')
    .replace('T', '-');
  const name = `scan-${stamp}-${String(randomInt(1000)).padStart(3, '0')}${kind === 'pdf' ? '.pdf' : ''}`;
  const hidden = join(path, `.${name}`);
  const how = scanning(faults, (most) => randomInt(most));
  const isCut = faults.includes('cut-off');
  const partOf = (bytes: Uint8Array) => (isCut ? bytes.subarray(0, Math.floor(bytes.length * 0.6)) : bytes);
  const { drawRuleBookScans, scanRuleBook } = await import('../../standins/ruleBook');
  if (kind === 'pdf') await writeFile(hidden, partOf(await drawRuleBookScans(how)));
  else {
    const pictures = await scanRuleBook({
      ...how,
      glass: glassOf(faults, kind),
      ...(faults.includes('double-feed') ? { twice: [2] } : {}),
    });
    await mkdir(hidden);
    for (const [n, picture] of pictures.entries())
      await writeFile(
        join(hidden, picture.name),
        n === pictures.length - 1 ? partOf(picture.bytes) : picture.bytes,
      );
  }
  await rename(hidden, join(path, name));
  return name;
}

/** Delivers where the stand-in is set to do so every few seconds and the time has come. */
export async function deliverScans(): Promise<void> {
  const due = await transaction(async (client) => {
    const { rows } = await client.query<{ name: string }>(
      `update drop_folder set scanned_at = now() where id in (
         select id from drop_folder where scan_every is not null and not paused
           and (scanned_at is null or scanned_at < now() - make_interval(secs => scan_every))
         for update skip locked)
       returning name`,
    );
    return rows;
  });
  for (const { name } of due) await deliver(name, ['turned']);
}
