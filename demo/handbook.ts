import { INK, Paper, type Drawing } from '../src/lib/standins/paper';
import { entryAt, lastOf } from '../src/lib/core/entries';

const [WIDTH, HEIGHT] = [148, 210];
const FRONT_MATTER = 10;
const BODY = 118;
/** Body pages that came in another size, and which: a scan, a page from an older book, a drawing, an office sheet. */
const ODD: Record<number, [width: number, height: number]> = {
  17: [148, 213],
  40: [152, 210],
  73: [210, 148],
  101: [210, 297],
};
const CHAPTERS = [
  'Steam and how it is made',
  'Signals',
  'The road',
  'Stopping',
  'When things go wrong',
  'Shed duties',
];
const SENTENCES = [
  'The fireman watches the water before the fire, and the fire before the view.',
  'A whistle is answered, always, even where no one seems to be listening.',
  'Never step between vehicles that may move; walk round, and let the guard see you.',
  'On the bank above Tarn Bridge the regulator is opened early and closed late.',
  'Sand is for starting, not for stopping, and is no use on a wet leaf.',
  'Steam that is blown off has been paid for twice: once in coal and once in water.',
  'The staff for the section is shown before it is taken, and taken before it is left.',
  'At Ashgill the platform ends sooner than the eye expects, so count the coaches.',
];

/** The handbook: front matter in roman, body from 1, made to begin on the right; numbers were left to the printer, four pages are of another size and no blanks were left. */
export async function drawHandbook(): Promise<Uint8Array> {
  const paper = await Paper.create('Footplate handbook');
  paper.labels([
    { from: 0, style: 'r' },
    { from: FRONT_MATTER, style: 'D' },
  ]);
  const titles = [
    'Footplate handbook',
    '',
    'Contents',
    'Contents',
    'Preface',
    'Preface',
    'The engines',
    'The engines',
    'The line',
    'How to use this book',
  ];
  for (let n = 0; n < FRONT_MATTER; n++) frontPage(paper.page(WIDTH, HEIGHT), entryAt(titles, n), n);
  for (let n = 1; n <= BODY; n++) {
    const [width, height] = ODD[n] ?? [WIDTH, HEIGHT];
    bodyPage(paper.page(width, height), n);
  }
  return paper.save();
}

/** Its cover in one piece, back to front, made for a spine of 6.4 mm: the paper was to be thinner than what it is printed on. */
export async function drawHandbookCover(): Promise<Uint8Array> {
  const spine = 6.4;
  const paper = await Paper.create('Footplate handbook, cover');
  const page = paper.page(2 * WIDTH + spine, HEIGHT, 3);
  const [front, all] = [WIDTH + spine, 2 * WIDTH + spine];
  page.houseBox(-3, -3, all + 6, HEIGHT + 6);
  page.box(front + 16, 58, WIDTH - 32, 62, INK.cream);
  page.text('Footplate', front + WIDTH / 2, 84, 30, 'strong', INK.black, 'centre');
  page.text('handbook', front + WIDTH / 2, 102, 30, 'strong', INK.black, 'centre');
  page.text('Larkmoor Light Railway Society', front + WIDTH / 2, 186, 11, 'plain', INK.cream, 'centre');
  for (const [n, line] of [
    'For drivers, firemen and cleaners.',
    'Kept in the coat, read in the shed.',
  ].entries())
    page.text(line, WIDTH / 2, 96 + 9 * n, 11, 'plain', INK.cream, 'centre');
  page.line(30, 84, WIDTH - 30, 84, 0.8, INK.cream);
  return paper.save();
}

function frontPage(page: Drawing, title: string, n: number): void {
  if (n === 0) {
    page.box(0, 60, WIDTH, 50, INK.sand);
    page.text(title, 16, 82, 26, 'strong');
    page.text('for drivers, firemen and cleaners', 16, 94, 12);
    page.text('Larkmoor Light Railway Society', 16, 190, 11);
    return;
  }
  page.text(title, 16, 26, 16, 'strong');
  paragraphs(page, n, 40);
}

function bodyPage(page: Drawing, n: number): void {
  const chapter = entryAt(CHAPTERS, Math.min(CHAPTERS.length - 1, Math.floor((n - 1) / 20)));
  const right = n % 2 === 1;
  page.text(
    right ? chapter : 'Footplate handbook',
    right ? page.width - 14 : 14,
    13,
    8,
    'plain',
    INK.grey,
    right ? 'right' : 'left',
  );
  page.line(14, 15.5, page.width - 14, 15.5, 0.3, INK.grey);
  if (n % 20 === 1) {
    page.box(14, 24, page.width - 28, 30, entryAt([INK.mist, INK.pale, INK.sand], n % 3));
    page.text(chapter, 20, 43, 18, 'strong');
  }
  paragraphs(page, n, n % 20 === 1 ? 68 : 28);
}

function paragraphs(page: Drawing, n: number, from: number): void {
  const across = Math.floor((page.width - 28) / 1.88);
  let y = from;
  for (let i = 0; y <= page.height - 20; i++) {
    const text = [0, 1, 2].map((j) => entryAt(SENTENCES, (n * 3 + i + j) % SENTENCES.length)).join(' ');
    for (const line of wrap(text, across)) {
      if (y > page.height - 20) break;
      page.text(line, 14, y, 11);
      y += 6.4;
    }
    y += 3;
  }
}

function wrap(text: string, across: number): string[] {
  const lines: string[] = [''];
  for (const word of text.split(' ')) {
    const last = lastOf(lines);
    if (last.length + word.length + 1 > across) lines.push(word);
    else lines[lines.length - 1] = last ? `${last} ${word}` : word;
  }
  return lines;
}
