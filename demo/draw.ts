import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { SOURCES } from './jobs';

/** Draws the demo sources: name and bytes of each. */
export const drawDemoSources = (): Promise<{ name: string; bytes: Uint8Array }[]> =>
  Promise.all(SOURCES.map(async ({ name, draw }) => ({ name, bytes: await draw() })));

const [, script, folder] = process.argv;
if (script && import.meta.filename === script) {
  if (!folder) {
    console.error('Say where to: npx tsx demo/draw.ts FOLDER');
    process.exit(2);
  }
  mkdirSync(folder, { recursive: true });
  for (const { name, bytes } of await drawDemoSources()) writeFileSync(join(folder, name), bytes);
}
