import { INK, Paper, type Drawing } from '../src/lib/standins/paper';
import { entryAt } from '../src/lib/core/entries';

/** The made-up line, with each station's place on the map in millimetres and its distance in miles and chains. */
const STATIONS = [
  { name: 'Larkmoor Town', x: 22, y: 62, miles: '0.00' },
  { name: 'Brindle Halt', x: 41, y: 78, miles: '1.42' },
  { name: 'Ashgill', x: 63, y: 74, miles: '3.10' },
  { name: 'Ashgill Quarry', x: 72, y: 96, miles: '3.71' },
  { name: 'Tarn Bridge', x: 88, y: 108, miles: '5.26' },
  { name: 'Fell Foot', x: 112, y: 118, miles: '7.08' },
  { name: 'High Larkmoor', x: 126, y: 150, miles: '9.15' },
];
const SEASONS = ['Spring', 'Early summer', 'High summer', 'Autumn', 'Winter weekends'];
const [WIDTH, HEIGHT] = [148, 210];
export const INTERIOR_PAGES = 12;

/** The interior: twelve A5 pages made to begin on the right, without bleed, outer-edge numbers and page labels 1 to 12. */
export async function drawInterior(): Promise<Uint8Array> {
  const paper = await Paper.create('Season timetable, interior');
  paper.label({ style: 'D' });
  for (let n = 1; n <= INTERIOR_PAGES; n++) {
    const page = paper.page(WIDTH, HEIGHT);
    if (n === 1) welcome(page);
    else if (n === 6 || n === 7) map(page, n === 6);
    else if (n === 12) notes(page);
    else timetable(page, n);
    runningMatter(page, n);
  }
  return paper.save();
}

/** A cover of one page with 3 mm bleed and the house ink. */
export async function drawCover(which: 'front' | 'back'): Promise<Uint8Array> {
  const paper = await Paper.create(`Season timetable, ${which} cover`);
  paper.label({ text: which === 'front' ? 'Cover' : 'Back cover' });
  const page = paper.page(WIDTH, HEIGHT, 3);
  page.houseBox(-3, -3, WIDTH + 6, HEIGHT + 6);
  const wave = (y: number, thickness: number) =>
    page.path(`M -3 ${y} C 40 ${y - 24}, 80 ${y + 26}, 151 ${y - 18}`, { stroke: INK.cream, thickness });
  if (which === 'front') {
    page.text('Larkmoor', 14, 44, 38, 'strong', INK.cream);
    page.text('Light Railway Society', 14, 54, 16, 'plain', INK.cream);
    wave(140, 1.4);
    wave(147, 0.5);
    page.text('Season timetable', 14, 190, 18, 'strong', INK.cream);
    page.text('trains on 146 days of the year', 14, 197, 10, 'plain', INK.cream);
  } else {
    wave(64, 0.5);
    page.text('Larkmoor Light Railway Society', 74, 150, 12, 'strong', INK.cream, 'centre');
    page.text('Station Yard, Larkmoor', 74, 157, 10, 'plain', INK.cream, 'centre');
    page.text('A made-up railway, for trying things out.', 74, 190, 9, 'plain', INK.cream, 'centre');
  }
  return paper.save();
}

/** Head band and the number at the outer edge: right on odd pages, which were made to lie on the right. */
function runningMatter(page: Drawing, n: number): void {
  const right = n % 2 === 1;
  page.text(
    String(n),
    right ? WIDTH - 12 : 12,
    HEIGHT - 9,
    10,
    'strong',
    INK.black,
    right ? 'right' : 'left',
  );
  page.text('Season timetable', WIDTH / 2, HEIGHT - 9, 7.5, 'plain', INK.grey, 'centre');
}

function welcome(page: Drawing): void {
  page.box(12, 16, WIDTH - 24, 42, INK.sand);
  page.text('Welcome aboard', 18, 34, 24, 'strong');
  page.text('Seven stations, nine miles, one engine in steam.', 18, 46, 11);
  const lines = [
    'Trains run on the days shown in each season’s table. Tickets are sold',
    'at Larkmoor Town and High Larkmoor, and by the guard elsewhere.',
    'Please be on the platform five minutes before your train is due.',
    '',
    'Trains call at Brindle Halt and Ashgill Quarry on request: give the',
    'driver a clear signal by hand, or tell the guard before you sit down.',
    '',
    'Dogs, prams and bicycles travel free where there is room.',
  ];
  lines.forEach((line, i) => page.text(line, 14, 74 + i * 7, 10));
  page.text('In this booklet', 14, 146, 13, 'strong');
  SEASONS.forEach((season, i) => {
    page.text(season, 14, 155 + i * 7, 10);
    page.text(
      entryAt(['2', '3', '4', '8', '10'], i),
      WIDTH - 14,
      155 + i * 7,
      10,
      'figures',
      INK.black,
      'right',
    );
    page.line(60, 155 + i * 7, WIDTH - 22, 155 + i * 7, 0.3, INK.grey);
  });
}

function timetable(page: Drawing, n: number): void {
  const season = entryAt(SEASONS, n < 4 ? n - 2 : n < 8 ? 2 : n < 10 ? 3 : 4);
  const tint = entryAt([INK.pale, INK.sand, INK.mist], n % 3);
  page.box(12, 14, WIDTH - 24, 18, tint);
  page.text(season, 16, 26, 17, 'strong');
  page.text(n % 2 ? 'up the line' : 'down the line', WIDTH - 16, 26, 10, 'plain', INK.black, 'right');
  const trains = 6;
  const column = (i: number) => 61 + i * 13.2;
  for (let block = 0; block < 2; block++) {
    const top = 44 + block * 76;
    page.text(block ? 'Sundays and holidays' : 'Mondays to Saturdays', 14, top, 10, 'strong');
    const stops = n % 2 ? [...STATIONS].reverse() : STATIONS;
    stops.forEach((station, row) => {
      const y = top + 9 + row * 8;
      if (row % 2 === 0) page.box(12, y - 5.4, WIDTH - 24, 8, INK.cream);
      page.text(station.name, 14, y, 9, 'narrow');
      page.text(station.miles, 54, y, 7.5, 'figures', INK.grey, 'right');
      for (let i = 0; i < trains - block; i++) {
        const minutes = 9 * 60 + 10 + n * 5 + i * 80 + row * 7 + block * 25;
        const time = `${String(Math.floor(minutes / 60)).padStart(2, '0')}.${String(minutes % 60).padStart(2, '0')}`;
        page.text(time, column(i) + 8, y, 8.5, 'figures', INK.black, 'right');
      }
      page.line(12, y + 2.6, WIDTH - 12, y + 2.6, 0.25, INK.grey);
    });
  }
}

/** The line map across a pair of facing pages: half of it on each. */
function map(page: Drawing, left: boolean): void {
  const shift = left ? 0 : -WIDTH;
  page.box(0, 30, WIDTH, 150, INK.pale);
  for (let i = 0; i < 5; i++)
    page.path(`M 0 ${52 + i * 26} C 50 ${30 + i * 28}, 90 ${78 + i * 22}, ${WIDTH} ${48 + i * 27}`, {
      stroke: INK.mist,
      thickness: 0.9,
    });
  const scale = 2;
  const at = (station: (typeof STATIONS)[number]) => ({
    x: (station.x - 8) * scale + shift + 2,
    y: station.y * 1.02 + 2,
  });
  const course = STATIONS.map((station, i) => `${i ? 'L' : 'M'} ${at(station).x} ${at(station).y}`).join(' ');
  page.path(course, { stroke: INK.black, thickness: 1.3 });
  page.path(course, { stroke: INK.cream, thickness: 0.5 });
  for (const station of STATIONS) {
    const { x, y } = at(station);
    if (x < 0 || x > WIDTH) continue;
    page.dot(x, y, 1.8, INK.rust);
    if (station.name === 'Ashgill Quarry')
      page.text(station.name, x - 4, y + 5, 9, 'strong', INK.black, 'right');
    else page.text(station.name, Math.min(x + 4, WIDTH - 34), y - 3, 9, 'strong');
  }
  page.text(
    left ? 'The line' : 'and the moor',
    left ? 12 : WIDTH - 12,
    22,
    20,
    'strong',
    INK.black,
    left ? 'left' : 'right',
  );
}

function notes(page: Drawing): void {
  page.text('Good to know', 14, 28, 20, 'strong');
  const notes = [
    'Fares',
    'Day rover',
    'Walks from stations',
    'Refreshments',
    'Engine shed open days',
    'Becoming a volunteer',
  ];
  notes.forEach((note, i) => {
    page.box(12, 38 + i * 25, WIDTH - 24, 20, entryAt([INK.sand, INK.mist, INK.pale], i % 3));
    page.text(note, 17, 47 + i * 25, 11, 'strong');
    page.text('Ask at any station, or of any guard: we like to be asked.', 17, 53.5 + i * 25, 9);
  });
}
