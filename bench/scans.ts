import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chances, scanBooklet } from '../tests/scanSets';
import { surveyPdf } from '../src/lib/pdf/read/survey';
import { writePicturePdf } from '../src/lib/pdf/write/picturePdf';
import { measureSource } from '../src/lib/raster/measureSource';
import { unpackPicture } from '../src/lib/raster/picture';
import type { PackedImage } from '../src/lib/core/model/survey';

/*
 * How long 64 scans of 300 dots an inch, two A5 pages each, take to be looked at and read, by how long a plain loop takes here;
 * and the most memory that was used.
 */

const SCANS = Number(process.env.SCANS ?? 64);
const made = process.env.SCANS_AT;

if (made) {
  const pdf = readFileSync(made);
  const from = performance.now();
  const survey = await measureSource(pdf, await surveyPdf(pdf));
  const took = performance.now() - from;
  const read = survey.pages.filter(({ drawn }) => drawn?.leans !== undefined).length;
  const peak = Math.round(process.resourceUsage().maxRSS / 1024);
  const plain = loop();
  console.log(
    `${SCANS} scans in ${(took / 1000).toFixed(1)} s, ${Math.round(took / plain)} × a loop of 2·10⁸ additions; ${read} know their way up; ${peak} MB at most`,
  );
  process.exit(0);
}

const chance = chances(1);
const set = await scanBooklet(
  { pages: 32, numbers: 'outer', bare: true, size: { width: 148, height: 210 } },
  'sheets',
  300,
  () => ({
    turn: chance() < 0.2 ? 180 : 0,
    skew: chance() * 4 - 2,
    noise: 5,
    beyond: 3,
    shadow: 0.1,
    quality: 75,
  }),
  chance,
);
const images: PackedImage[] = [];
for (let n = 0; n < SCANS; n++)
  images.push(...(await unpackPicture(set.pictures[n % set.pictures.length]!)).images);
const path = join(mkdtempSync(join(tmpdir(), 'folder-bench-')), 'scans.pdf');
writeFileSync(path, await writePicturePdf(images));
// What was needed to make them is not to count.
spawnSync(process.execPath, ['--import', 'tsx', 'bench/scans.ts'], {
  env: { ...process.env, SCANS_AT: path },
  stdio: 'inherit',
});

function loop(): number {
  const once = () => {
    const from = performance.now();
    let sum = 0;
    for (let n = 0; n < 2e8; n++) sum = (sum + n) | 0;
    return performance.now() - from + (sum & 0);
  };
  return Math.min(once(), once());
}
