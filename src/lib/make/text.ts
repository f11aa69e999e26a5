import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Part } from '../core/handover/parts';
import type { HandOverJob, Written } from './outputs/outputMaker';

/** Writes a text as the only file of an output. */
export function writeText(content: string, [part]: readonly Part[], { folder }: HandOverJob): Written[] {
  writeFileSync(join(folder, '1'), content);
  return [{ file: '1', part: part! }];
}
