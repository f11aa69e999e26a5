import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { scanned, type OnGlass } from '../standins/glass';
import { wordsOf } from '../../../tests/outside';
import {
  chances,
  drawBooklet,
  measuredSet,
  randomSet,
  scanBooklet,
  scanJob,
  shownOn,
  type Booklet,
} from '../../../tests/scanSets';
import { handOver } from './handOver';

const WORDS_PPI = 300;
const SETS = Number(process.env.SCAN_SETS ?? 2);
const MOST_PAGES = Number(process.env.SCAN_PAGES ?? 8);
const FIRST = Number(process.env.SCAN_FIRST ?? 1);

test(
  'scans of stapled booklets, in any order, turned every way, askew, noisy, come out in reading order and upright, or are stopped',
  { timeout: SETS * 180_000 },
  async () => {
    let [right, scans, straight] = [0, 0, 0];
    const silent: number[] = [];
    const stopped: string[] = [];
    for (let seed = FIRST; seed < FIRST + SETS; seed++) {
      const set = await randomSet(seed, MOST_PAGES);
      const measured = await measuredSet(set.pictures);
      set.truth.forEach(({ skew }, n) => {
        scans++;
        expect(measured.survey.pages[n]!.drawn?.scan?.blank, `set ${seed}, scan ${n + 1}`).toBeUndefined();
        if (Math.abs((measured.survey.pages[n]!.drawn?.scan?.skew ?? 99) - skew) <= 0.1) straight++;
      });
      const { work } = scanJob(measured);
      const isRight = work.list.pages.every((page, n) => {
        const shown = shownOn(page, set, measured.survey);
        return shown.n === n + 1 && shown.upright;
      });
      const stops = work.findings.filter(({ level }) => level === 'stop').map(({ code }) => code);
      if (isRight && !stops.length) right++;
      else if (stops.length) stopped.push(`${seed}: ${stops.join(', ')}${isRight ? ', though right' : ''}`);
      else silent.push(seed);
    }
    if (process.env.SCAN_SETS) console.log({ right, stopped, silent, scans, straight });
    expect(silent).toEqual([]);
    expect(right).toBeGreaterThanOrEqual(Math.floor(SETS * 0.99));
    expect(straight).toBeGreaterThanOrEqual(scans * 0.95);
  },
);

test(
  'the words of scans that were set straight, split and put in order are found in the reading-order PDF where they are printed (poppler)',
  { timeout: 240_000 },
  async () => {
    const chance = chances(23);
    const booklet: Booklet = { pages: 4, numbers: 'outer', bare: false };
    const set = await scanBooklet(
      booklet,
      'sheets',
      WORDS_PPI,
      (n) => ({ turn: n ? 180 : 90, skew: n ? -1.7 : 2.2, noise: 4, beyond: 4, shadow: 0.15, quality: 80 }),
      chance,
    );
    // The same chances draw the same pages.
    const folder = mkdtempSync(join(tmpdir(), 'folder-words-'));
    const asPrinted = join(folder, 'printed.pdf');
    writeFileSync(asPrinted, await drawBooklet(booklet, chances(23)));
    const printed = wordsOf(asPrinted);
    const measured = await measuredSet(set.pictures);
    const { docket, surveys } = scanJob(measured);
    const made = await handOver(
      docket,
      { kind: 'pages', crop: 'trim', searchable: true },
      { surveys, read: () => Promise.resolve(measured.pdf), folder, at: new Date(0) },
    );
    const found = wordsOf(join(folder, made[0]!.file));
    let [same, near, all] = [0, 0, 0];
    printed.forEach((page, n) => {
      const there = [...(found[n] ?? [])];
      for (const word of page) {
        all++;
        const at = there.findIndex(({ text }) => text === word.text);
        if (at < 0) continue;
        same++;
        const near3 = (other: typeof word) =>
          other.text === word.text && Math.hypot(other.x - word.x, other.y - word.y) < 9;
        if (found[n]!.some(near3)) near++;
        there.splice(at, 1);
      }
      // Nothing of another page comes along.
      expect(found[n]!.length).toBeLessThan(page.length * 1.1);
    });
    if (process.env.SCAN_SETS) console.log({ all, same, near });
    expect(same).toBeGreaterThanOrEqual(all * 0.98);
    expect(near).toBeGreaterThanOrEqual(all * 0.97);
  },
);

test('paper with nothing on it but dirt, noise and a shadow is told from paper with a small page number alone', async () => {
  const [width, height] = [620, 874];
  const white = () => ({ width, height, light: new Uint8Array(width * height).fill(255) });
  const numbered = white();
  // A seven of 7 pt: a bar of 8 dots, and a stem of 15 that leans.
  for (let n = 0; n < 15; n++)
    for (let x = n < 2 ? 0 : 6 - n / 3; x < (n < 2 ? 8 : 8 - n / 3); x++)
      numbered.light[(height - 60 + n) * width + 300 + Math.round(x)] = 0;
  const chance = chances(11);
  const lies = (n: number): OnGlass => ({
    ppi: 150,
    skew: n - 1.5,
    turn: ([0, 90, 180, 270] as const)[n]!,
    beyond: n ? 4 : 0,
    lid: n % 2 ? 30 : 250,
    noise: 3 * n,
    shadow: 0.1 * n,
    specks: 6 * n,
    quality: 60,
    chance,
  });
  const pictures: Buffer[] = [];
  for (let n = 0; n < 4; n++)
    for (const left of [white(), numbered]) pictures.push(await scanned({ pages: [left, white()] }, lies(n)));
  const { survey } = await measuredSet(pictures);
  expect(survey.pages.map(({ drawn }) => !!drawn?.scan?.blank)).toEqual(pictures.map((_, n) => n % 2 === 0));
});
