import { INK, Paper, type Drawing } from '../src/lib/standins/paper';
import { firstOf, lastOf } from '../src/lib/core/entries';

const [WIDTH, HEIGHT, BLEED] = [148, 210, 3];
/** The panels as they were drawn: 2 mm narrower than the page that they fold over. */
const PANEL = 146;

const STOPS = [
  'Larkmoor Town',
  'Sedge Lane',
  'Brindle Halt',
  'Tarn Bridge',
  'Ashgill Quarry',
  'Cold Knott',
  'High Larkmoor',
];

/**
 * The line guide: four pages, then a panel for each end, front and back. Inside, a map of the line runs over the left
 * panel, both pages and the right panel.
 */
export async function drawLineGuide(): Promise<Uint8Array> {
  const paper = await Paper.create('Line guide');
  const cover = paper.page(WIDTH, HEIGHT, BLEED);
  cover.houseBox(-BLEED, -BLEED, WIDTH + 2 * BLEED, HEIGHT + 2 * BLEED);
  cover.text('Line guide', 14, 60, 34, 'strong', INK.cream);
  cover.text('with a map that folds out at both ends', 14, 72, 12, 'plain', INK.cream);
  drawMap(paper.page(WIDTH, HEIGHT, BLEED), 1);
  drawMap(paper.page(WIDTH, HEIGHT, BLEED), 2);
  const back = paper.page(WIDTH, HEIGHT, BLEED);
  back.box(-BLEED, -BLEED, WIDTH + 2 * BLEED, HEIGHT + 2 * BLEED, INK.sand);
  back.text('Larkmoor Light Railway Society', WIDTH / 2, 180, 11, 'plain', INK.black, 'centre');
  // A and B hang on the first leaf, C and D on the second: inside lie B 2 3 C.
  plain(paper.page(PANEL, HEIGHT, BLEED), 'Walks from the stations', [
    'From Sedge Lane along the dyke, 2 miles',
    'From Brindle Halt to the mill, 1 mile',
    'From Cold Knott over the top, 4 miles',
  ]);
  drawMap(paper.page(PANEL, HEIGHT, BLEED), 0);
  drawMap(paper.page(PANEL, HEIGHT, BLEED), 3);
  plain(paper.page(PANEL, HEIGHT, BLEED), 'Engines of the line', [
    'Heron, built for the quarry',
    'Curlew, from a brickworks',
    'Plover, at work again since spring',
  ]);
  return paper.save();
}

function plain(page: Drawing, title: string, lines: readonly string[]): void {
  page.box(-BLEED, -BLEED, page.width + 2 * BLEED, HEIGHT + 2 * BLEED, INK.pale);
  page.text(title, 12, 30, 19, 'strong');
  lines.forEach((line, i) => page.text(line, 12, 48 + i * 10, 11));
}

/** One of the four parts of the map, counted from the left: its line goes on at the next part's edge. */
function drawMap(page: Drawing, part: number): void {
  page.box(-BLEED, -BLEED, page.width + 2 * BLEED, HEIGHT + 2 * BLEED, INK.mist);
  const y = (at: number) => 105 + Math.sin(at * 1.7) * 34;
  const from = Array.from({ length: 25 }, (_, i) => ({ x: (i / 24) * page.width, y: y(part + i / 24) }));
  page.path(
    `M ${-BLEED} ${firstOf(from).y} ${from.map((at) => `L ${at.x} ${at.y}`).join(' ')} L ${page.width + BLEED} ${lastOf(from).y}`,
    { stroke: INK.rust, thickness: 1.4 },
  );
  for (const [n, share] of [0.28, 0.74].entries()) {
    const stop = STOPS[2 * part + n];
    if (!stop) continue;
    page.dot(share * page.width, y(part + share), 2.2, INK.cream);
    page.text(stop, share * page.width, y(part + share) - 6, 10, 'strong', INK.black, 'centre');
  }
}
