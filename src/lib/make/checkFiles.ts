import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { workOut } from '../core/checks';
import type { Docket } from '../core/docket/docket';
import { disagreements, type Disagreement } from '../core/handover/agree';
import { askedOf, type Output } from '../core/handover/outputs';
import { readWritten } from '../pdf/read/written';
import type { Trouble } from '../words/troubles';
import { partsAsked } from './handOver';
import { HandOverError } from './handOverError';
import type { MadeFile } from './made';
import type { HandOverJob } from './outputs/outputMaker';
import { firstOf } from '../core/entries';

/** Reads files again that were written and holds them against what was asked. Throws HandOverError if one is not what it should be. */
export async function checkFiles(
  docket: Docket,
  output: Output,
  made: readonly MadeFile[],
  { surveys, folder, onProgress }: Pick<HandOverJob, 'surveys' | 'folder' | 'onProgress'>,
): Promise<void> {
  const work = workOut(docket, surveys);
  const byParts = 'split' in output && output.split?.by === 'size' ? undefined : partsAsked(work, output);
  const whole = byParts ?? partsAsked(work, output);
  const askedFor = askedOf(work, output);
  if (!askedFor) return;
  let at = 0;
  for (const [n, { file, name, pages = 0 }] of made.entries()) {
    const part = byParts?.[n] ?? { pages: firstOf(whole).pages.slice(at, at + pages) };
    at += pages;
    const asked = askedFor(part);
    const written = await readWritten(await readFile(join(folder, file)), asked);
    const [first, ...more] = disagreements(asked, written);
    if (first) throw new HandOverError(disagrees(name, first, more.length));
    await onProgress?.(n + 1, made.length);
  }
}

function disagrees(name: string, first: Disagreement, more: number): Trouble {
  const size = ({ width, height }: { width: number; height: number }) =>
    `${width.toFixed(2)} × ${height.toFixed(2)} pt`;
  const what =
    'name' in first
      ? { what: first.of, asked: first.name, written: '' }
      : !('asked' in first)
        ? { what: first.of, asked: '', written: '' }
        : typeof first.asked === 'object'
          ? { what: first.of, asked: size(first.asked), written: size(first.written as typeof first.asked) }
          : { what: first.of, asked: String(first.asked), written: String(first.written) };
  return { code: 'disagrees', data: { name, ...what, page: 'page' in first ? first.page : 0, more } };
}
