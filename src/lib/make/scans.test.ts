import { expect, test } from 'vitest';
import { measuredSet, randomSet, scanJob, shownOn } from '../../../tests/scanSets';

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
