import { INK, Paper, type Drawing } from '../src/lib/standins/paper';
import { entryAt } from '../src/lib/core/entries';

/** Three panels alike, as they were supplied: the one that folds in has no room to. */
const [PANEL, HEIGHT] = [99, 210];

/** The leaflet as six panels: what folds in, the back and the cover from outside, then the inside from its left. */
export async function drawGala(): Promise<Uint8Array> {
  const paper = await Paper.create('Gala day leaflet');
  foldIn(paper.page(PANEL, HEIGHT, 3));
  back(paper.page(PANEL, HEIGHT, 3));
  cover(paper.page(PANEL, HEIGHT, 3));
  const insides: [string, string[]][] = [
    [
      'Morning',
      ['9.00  Sheds open', '9.40  First train', '10.30  Parade of engines', '11.15  Signal box tours'],
    ],
    ['Afternoon', ['12.30  Goods train', '13.45  Brass band', '14.30  Driving the trolley', '15.20  Prizes']],
    ['Evening', ['17.00  Supper on the platform', '18.30  Lamp-lit train', '20.00  Whistles and bells', '']],
  ];
  insides.forEach(([title, lines], n) => inside(paper.page(PANEL, HEIGHT, 3), title, lines, n));
  return paper.save();
}

function cover(page: Drawing): void {
  page.houseBox(-3, -3, PANEL + 6, HEIGHT + 6);
  page.text('Gala day', PANEL / 2, 70, 30, 'strong', INK.cream, 'centre');
  page.text('Larkmoor Light Railway Society', PANEL / 2, 82, 10, 'plain', INK.cream, 'centre');
  page.line(20, 92, PANEL - 20, 92, 1, INK.cream);
  page.text('Everything in steam', PANEL / 2, 101, 11, 'plain', INK.cream, 'centre');
}

function back(page: Drawing): void {
  page.box(-3, -3, PANEL + 6, HEIGHT + 6, INK.sand);
  page.text('How to find us', 12, 30, 15, 'strong');
  ['Station Yard, Larkmoor', 'Trains every forty minutes', 'Dogs travel free'].forEach((line, n) =>
    page.text(line, 12, 42 + 8 * n, 10),
  );
  page.path(`M 8 120 q 20 -18 42 0 t 42 0`, { stroke: INK.rust, thickness: 1 });
  for (const x of [8, 50, 92]) page.dot(x, 120, 1.6, INK.cream);
}

function foldIn(page: Drawing): void {
  page.box(-3, -3, PANEL + 6, HEIGHT + 6, INK.pale);
  page.text('Join us', 12, 30, 15, 'strong');
  ['A year’s membership', 'brings four letters', 'and two free rides.'].forEach((line, n) =>
    page.text(line, 12, 42 + 8 * n, 10),
  );
}

function inside(page: Drawing, title: string, lines: string[], n: number): void {
  page.box(-3, -3, PANEL + 6, HEIGHT + 6, entryAt([INK.pale, INK.mist, INK.sand], n));
  page.text(title, 12, 34, 20, 'strong');
  lines.forEach((line, i) => page.text(line, 12, 54 + i * 11, 10));
}
