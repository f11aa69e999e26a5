import { INK, Paper } from '../src/lib/standins/paper';

export const TICKETS = 50;
const [WIDTH, HEIGHT] = [57, 30];

/** The platform tickets, each with room for its number, and after them a page with the die line alone. */
export async function drawTickets(): Promise<Uint8Array> {
  const paper = await Paper.create('Platform tickets');
  for (let n = 0; n < TICKETS; n++) {
    const page = paper.page(WIDTH, HEIGHT, 2);
    page.box(-2, -2, WIDTH + 4, HEIGHT + 4, INK.sand);
    page.houseBox(-2, -2, WIDTH + 4, 8);
    page.text('Larkmoor Light Railway', 28.5, 4.4, 8, 'strong', INK.cream, 'centre');
    page.text('PLATFORM TICKET', 28.5, 13.5, 9, 'strong', INK.black, 'centre');
    page.text('High Larkmoor', 28.5, 18.5, 8, 'plain', INK.black, 'centre');
    page.text('Not valid for travel. Valid one hour.', 28.5, 22.5, 5, 'plain', INK.grey, 'centre');
  }
  paper.page(WIDTH, HEIGHT, 2).dieLine(1, 2.5, { x: 5.5, y: 15, radius: 1.6 });
  return paper.save();
}
