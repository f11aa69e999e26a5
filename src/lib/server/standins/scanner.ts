import { randomInt } from 'node:crypto';
import { rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Scanning } from '../../standins/ruleBook';
import { transaction } from '../db';
import { openDirectory } from '../dropFolders';
import { entryAt } from '../../core/entries';

/** Faults that the scanner stand-in can be told to make. */
export const SCAN_FAULTS = ['turned', 'fronts-backs', 'sheet-missing', 'cut-off'] as const;
export type ScanFault = (typeof SCAN_FAULTS)[number];

const TURNS = [0, 90, 180, 270] as const;

/** How the stand-in scans, other each time: how scans lie on the glass, and what goes wrong. */
function scanning(faults: readonly ScanFault[], from: (most: number) => number): Scanning {
  const lies = Array.from({ length: 8 }, () => ({
    turn: faults.includes('turned') && from(3) === 0 ? entryAt(TURNS, 1 + from(3)) : (0 as const),
    skew: (from(13) - 6) / 10,
  }));
  return {
    lies,
    ...(faults.includes('fronts-backs') ? { frontsFirst: true } : {}),
    ...(faults.includes('sheet-missing') ? { without: [1 + from(3)] } : {}),
  };
}

/**
 * The scanner stand-in, a small simulated device: delivers a demo booklet as raw scans into a drop folder, under a name of
 * its own. As scanners do it writes under a hidden name first. Throws Problem. Returns the name.
 */
export async function deliver(folder: string, faults: readonly ScanFault[]): Promise<string> {
  const { drawRuleBookScans } = await import('../../standins/ruleBook');
  const path = await openDirectory(folder);
  const whole = await drawRuleBookScans(scanning(faults, (most) => randomInt(most)));
  const bytes = faults.includes('cut-off') ? whole.subarray(0, Math.floor(whole.length * 0.6)) : whole;
  const stamp = new Date()
    .toISOString()
    .replace(/[-:]|\.\d+Z$/g, '')
    .replace('T', '-');
  const name = `scan-${stamp}-${String(randomInt(1000)).padStart(3, '0')}.pdf`;
  await writeFile(join(path, `.${name}`), bytes);
  await rename(join(path, `.${name}`), join(path, name));
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
