import { INK, Paper, type Drawing } from '../src/lib/standins/paper';

/** The pieces, in the order of the file; sizes in millimetres. Five pieces, five sizes. */
export const PIECES = [
  { name: 'Letterhead', width: 210, height: 297, quantity: 1000 },
  { name: 'Slip', width: 210, height: 99, quantity: 500 },
  { name: 'Envelope', width: 220, height: 110, quantity: 1000 },
  { name: 'Station card', width: 85, height: 55, quantity: 250 },
  { name: 'Pass', width: 85.6, height: 53.98, quantity: 120 },
] as const;

/** The stationery: one page a piece, each with 3 mm bleed. */
export async function drawStationery(): Promise<Uint8Array> {
  const paper = await Paper.create('Station stationery');
  for (const piece of PIECES) {
    const page = paper.page(piece.width, piece.height, 3);
    if (piece.name === 'Pass') pass(page);
    else heading(page, piece.width < 100 ? 0.62 : 1);
    if (piece.name === 'Letterhead') foot(page);
    if (piece.name === 'Station card') {
      page.text('Station master, Larkmoor Town', 8, 34, 8);
      page.text('on duty whenever a train is', 8, 39, 7, 'plain', INK.grey);
    }
    if (piece.name === 'Slip') page.text('With compliments', 130, 30, 13, 'strong');
  }
  return paper.save();
}

function heading(page: Drawing, scale: number): void {
  page.houseBox(-3, -3, page.width + 6, 7 * scale + 3);
  page.path(
    `M ${page.width - 60 * scale} ${20 * scale} l ${14 * scale} ${-7 * scale} l ${12 * scale} ${6 * scale} l ${20 * scale} ${-9 * scale}`,
    {
      stroke: INK.rust,
      thickness: 0.4,
    },
  );
  page.text('Larkmoor Light Railway Society', 8 + 6 * scale, 20 * scale, 14 * scale, 'strong');
  page.text('Station Yard, Larkmoor', 8 + 6 * scale, 26 * scale, 9 * scale, 'plain', INK.grey);
}

function foot(page: Drawing): void {
  page.line(14, page.height - 18, page.width - 14, page.height - 18, 0.4, INK.grey);
  page.text(
    'A made-up railway, for trying things out.',
    page.width / 2,
    page.height - 12,
    8,
    'plain',
    INK.grey,
    'centre',
  );
}

function pass(page: Drawing): void {
  page.houseBox(-3, -3, page.width + 6, page.height + 6, 0.18);
  page.houseBox(-3, 34, page.width + 6, page.height - 31);
  page.text('Footplate pass', 8, 16, 15, 'strong');
  page.text('one journey, any engine', 8, 23, 9);
  page.text('Larkmoor', 8, 46, 12, 'strong', INK.cream);
}
