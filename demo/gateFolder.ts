import { INK, Paper, type Drawing } from '../src/lib/standins/paper';

/** The centre, and the flaps as they were supplied: each as wide as the half that it must close over, so that they would meet and buckle. */
const [CENTRE, FLAP, HEIGHT] = [210, 105, 210];

/** The folder as six panels: left flap, centre and right flap of the inside, then of the outside. */
export async function drawGateFolder(): Promise<Uint8Array> {
  const paper = await Paper.create('Open weekend gate folder');
  const insides: [number, string, string[]][] = [
    [
      FLAP,
      'Saturday',
      ['Engines in steam from nine', 'Rides to Tarn Bridge', 'Brass band at noon', 'Lamps lit at dusk'],
    ],
    [
      CENTRE,
      'Open weekend',
      ['Everything that moves, moving.', 'The shed, the signal box and the workshop are open on both days.'],
    ],
    [FLAP, 'Sunday', ['Goods train at ten', 'Signal box tours', 'Tea at Ashgill', 'Last train at six']],
  ];
  for (const [width, title, lines] of insides) inside(paper.page(width, HEIGHT, 3), title, lines);
  for (const [width, left] of [
    [FLAP, true],
    [CENTRE, false],
    [FLAP, false],
  ] as const)
    outside(paper.page(width, HEIGHT, 3), left);
  return paper.save();
}

function inside(page: Drawing, title: string, lines: string[]): void {
  page.box(-3, -3, page.width + 6, HEIGHT + 6, page.width === CENTRE ? INK.pale : INK.sand);
  page.text(title, 12, 34, page.width === CENTRE ? 30 : 20, 'strong');
  lines.forEach((line, i) => page.text(line, 12, 54 + i * 11, 11));
  for (let i = 0; i < 5; i++)
    page.path(
      `M -3 ${130 + i * 15} q ${page.width / 4} ${-20 + i * 3} ${page.width / 2} 0 t ${page.width / 2 + 6} 0`,
      { stroke: INK.mist, thickness: 1.2 },
    );
}

function outside(page: Drawing, left: boolean): void {
  page.houseBox(-3, -3, page.width + 6, HEIGHT + 6, page.width === CENTRE ? 0.8 : 1);
  if (page.width === CENTRE) {
    page.text('Larkmoor Light Railway Society', CENTRE / 2, 100, 16, 'strong', INK.cream, 'centre');
    page.text('Station Yard, Larkmoor', CENTRE / 2, 110, 11, 'plain', INK.cream, 'centre');
  } else
    page.text(
      left ? 'Open' : 'weekend',
      left ? FLAP - 12 : 12,
      60,
      26,
      'strong',
      INK.cream,
      left ? 'right' : 'left',
    );
}
