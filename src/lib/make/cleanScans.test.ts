import { execFileSync } from 'node:child_process';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { keep, wordsOf } from '../../../tests/outside';
import { chances, measuredSet, scanBooklet } from '../../../tests/scanSets';
import { cleanScans } from './cleanScans';

const PPI = 200;

/** A page drawn by poppler: three bytes a dot. */
async function drawn(path: string, page: number): Promise<{ data: Buffer; width: number; height: number }> {
  const args = ['-r', String(PPI), '-f', String(page), '-l', String(page), '-png', path];
  const png = execFileSync('pdftoppm', args, { maxBuffer: 1 << 28 });
  const { data, info } = await sharp(png)
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}
/** The share of dots for which something is true, by their darkest and their lightest colour. */
function share(data: Buffer, is: (darkest: number, lightest: number, n: number) => boolean): number {
  let count = 0;
  for (let at = 0; at < data.length; at += 3) {
    const three = [data[at]!, data[at + 1]!, data[at + 2]!];
    if (is(Math.min(...three), Math.max(...three), at / 3)) count++;
  }
  return (count * 3) / data.length;
}
const set = (quality: number | undefined) =>
  scanBooklet(
    { pages: 4, numbers: 'outer', bare: false },
    'sheets',
    PPI,
    (n) => ({ turn: n ? 90 : 0, skew: n ? -1.4 : 1.1, beyond: 5, lid: 40, through: 0.14, noise: 4, quality }),
    chances(5),
  );

test.each([
  ['JPEG', 85],
  ['TIFF', undefined],
])(
  'of a %s scan, paper becomes white, what shows through and what lies around the paper go, and the ink stays (poppler)',
  { timeout: 120_000 },
  async (_, quality) => {
    const measured = await measuredSet((await set(quality)).pictures);
    const asScanned = keep(measured.pdf);
    const made = await cleanScans(measured.pdf, measured.survey, { paper: true, through: true, edges: true });
    expect(made.changed).toEqual([0, 1]);
    const clean = keep(made.bytes);
    for (const page of [1, 2]) {
      const [before, after] = [await drawn(asScanned, page), await drawn(clean, page)];
      expect([after.width, after.height]).toEqual([before.width, before.height]);
      const { paper } = measured.survey.pages[page - 1]!.drawn!.scan!;
      const inside = (n: number): boolean => {
        const [x, y] = [n % after.width, Math.floor(n / after.width)].map((at) => (at * 72) / PPI) as [
          number,
          number,
        ];
        const up = (after.height * 72) / PPI - y;
        return x > paper.x0 + 20 && x < paper.x1 - 20 && up > paper.y0 + 20 && up < paper.y1 - 20;
      };
      // Neither dark glass nor tinted paper nor the pale print of the back was white before.
      expect(share(before.data, (darkest) => darkest > 245)).toBeLessThan(0.05);
      expect(share(after.data, (darkest) => darkest > 245)).toBeGreaterThan(0.9);
      expect(share(before.data, (darkest, _l, n) => !inside(n) && darkest < 100)).toBeGreaterThan(0.04);
      expect(share(after.data, (darkest, _l, n) => !inside(n) && darkest < 100)).toBeLessThan(0.002);
      const wasInk = (n: number) => inside(n) && Math.max(...before.data.subarray(3 * n, 3 * n + 3)) < 110;
      const ink = share(before.data, (_d, _l, n) => wasInk(n));
      expect(ink).toBeGreaterThan(0.005);
      expect(share(after.data, (_d, lightest, n) => wasInk(n) && lightest < 150)).toBeGreaterThan(ink * 0.98);
    }
  },
);

test('only what is asked for is taken off, and pages that are no scans stay', async () => {
  const measured = await measuredSet((await set(85)).pictures);
  const only = await cleanScans(measured.pdf, measured.survey, { paper: true, through: false, edges: false });
  const { data } = await drawn(keep(only.bytes), 1);
  // Paper is white, the glass around it as dark as it was.
  expect(share(data, (darkest) => darkest > 245)).toBeGreaterThan(0.5);
  expect(share(data, (_d, lightest) => lightest < 80)).toBeGreaterThan(0.05);
  const noScans = {
    ...measured.survey,
    pages: measured.survey.pages.map(({ drawn: _, ...page }) => page),
  };
  const none = await cleanScans(measured.pdf, noScans, { paper: true, through: true, edges: true });
  expect(none.changed).toEqual([]);
  expect(wordsOf(keep(none.bytes))).toHaveLength(measured.survey.pages.length);
});
