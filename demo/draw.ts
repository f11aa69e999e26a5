import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { drawCover, drawInterior } from './timetable';

/** Draws the demo sources: name and bytes of each. */
export const drawDemoSources = async (): Promise<{ name: string; bytes: Uint8Array }[]> => [
  { name: 'timetable-interior.pdf', bytes: await drawInterior() },
  { name: 'cover-front.pdf', bytes: await drawCover('front') },
  { name: 'cover-back.pdf', bytes: await drawCover('back') },
];

const [, script, folder] = process.argv;
if (script && import.meta.filename === script) {
  if (!folder) {
    console.error('Say where to: npx tsx demo/draw.ts FOLDER');
    process.exit(2);
  }
  mkdirSync(folder, { recursive: true });
  for (const { name, bytes } of await drawDemoSources()) writeFileSync(join(folder, name), bytes);
}
