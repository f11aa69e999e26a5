import type { Box } from '../../core/measure/box';
import { median } from '../../core/measure/median';
import { quarters, type Turn } from '../../core/measure/matrix';
import type { Drawn, ReadNumber } from '../../core/model/survey';
import type { Gray } from '../gray';
import { foldIn } from './fold';
import { boxAround, levelled, type Level } from './level';
import { linesAmong, loneAmong, marksIn, type Mark } from './marks';
import { paperIn, toneOf, type Paper, type PaperSide } from './paper';
import { halved, inkIn, turnedBack } from './picture';
import { readLines } from './reader';
import { skewOf } from './skew';

/** What is found on a scan. */
export type Looked = Pick<Drawn, 'numbers' | 'leans'> & Required<Pick<Drawn, 'scan'>>;

/** Lines are found in pictures of so many dots an inch, where paper is as light as this far around. */
const FIND_PPI = 150;
const AROUND = 0.13;
/** How far from the head or foot numbers stand at most, as a share of the page's height. */
const FOLIO_DEPTH = 0.17;
const [MOST_LINES, MOST_LONE] = [4, 12];
/** What lies nearer to the edge of the paper than this, in mm, is its edge or a shadow. */
const EDGE_MM = 1.2;
/** Numbers read less surely than this are none. */
const SURE_NUMBER = 70;
/** Words of so many letters, read so surely, tell that a line stands upright. */
const [WORD, SURE_WORD] = [/^[\p{L}’'-]{3,}[.,;:]?$/u, 55];
/** Upright is what reads so many times better than upside down; so much better is enough at once. */
const [BETTER, CLEAR, PLENTY] = [1.5, 3, 150];
/** So many longer words, read so surely, can only stand upright. */
const [SURELY, ENOUGH_WORDS] = [80, 3];
/** Digits that are none upside down. */
const ONE_WAY = /[23457]/;
/** Lines that stand out so many times better one way are looked at in that way alone. */
const SHARPER = 1.5;

/**
 * Looks at a scan: how far askew it lies, where its paper ends and folds, and, where asked for, which way up its words stand and
 * which numbers stand alone at head or foot. `gray` has `ppi` dots an inch. Lengths come out in points as the page is seen,
 * y upwards.
 */
export async function lookAt(gray: Gray, ppi: number, read: boolean): Promise<Looked> {
  const view = viewOf(gray, ppi);
  const ways = view.text
    ? [view.text.down, ...(view.text.sharper < SHARPER ? [!view.text.down] : [])]
    : [false, true];
  let found: Reading = { numbers: [] };
  if (read)
    for (const down of ways) {
      const reading = await readLevel(view, down);
      if (reading.leans !== undefined || reading.numbers.length > found.numbers.length) found = reading;
      if (reading.leans !== undefined) break;
    }
  const { numbers, leans } = found;
  return {
    ...(numbers.length ? { numbers } : {}),
    ...(leans === undefined ? {} : { leans }),
    scan: scanOf(view),
  };
}

/** A scan, small enough to find things in it. */
interface View {
  gray: Gray;
  ppi: number;
  small: Gray;
  /** Dots an inch of the small one. */
  finds: number;
  tone: number;
  paper: Paper;
  /** Where it has ink, a byte a dot of the small one. */
  ink: Uint8Array;
  text: ReturnType<typeof skewOf>;
  skew: number;
  /** It is set level for two things: those that are alike are made once. */
  level(angle: number, k: number): Level;
}

function viewOf(gray: Gray, ppi: number): View {
  let [small, finds] = [gray, ppi];
  while (finds >= 2 * FIND_PPI * 0.95) [small, finds] = [halved(small), finds / 2];
  const ink = inkIn(small, Math.round(finds * AROUND));
  const text = skewOf(ink, small.width, small.height);
  const paper = paperIn(small);
  const tone = toneOf(small);
  const known = new Map<string, Level>();
  const level = (angle: number, k: number): Level => {
    const key = `${angle} ${k}`;
    const made = known.get(key) ?? levelled(small, angle, k, tone);
    known.set(key, made);
    return made;
  };
  return { gray, ppi, small, finds, tone, paper, ink, text, skew: text?.skew ?? leanOf(paper) ?? 0, level };
}

/** How far clockwise the paper lies, by those of its sides that are seen. */
function leanOf({ left, right, head, foot }: Paper): number | undefined {
  const slopes = [head?.slope, right?.slope, foot && -foot.slope, left && -left.slope].filter(
    (slope) => slope !== undefined,
  );
  return slopes.length ? (Math.atan(median(slopes)) * 180) / Math.PI : undefined;
}

/** The middles of the paper's sides, in dots of the small picture. */
function sidesOf({ small: { width, height }, paper: { left, right, head, foot } }: View) {
  return [
    { x: left?.at ?? 0, y: height / 2 },
    { x: width - (right?.at ?? 0), y: height / 2 },
    { x: width / 2, y: head?.at ?? 0 },
    { x: width / 2, y: height - (foot?.at ?? 0) },
  ];
}

/** How a scan lies, and its paper and fold once it is set straight about its middle. */
function scanOf(view: View): Looked['scan'] {
  const { small, finds, skew } = view;
  const level = view.level(skew, 1);
  const lies = boxAround(sidesOf(view).map(({ x, y }) => level.to(x, y)));
  const points = 72 / finds;
  const wide = lies.x1 - lies.x0 >= lies.y1 - lies.y0;
  const fold = wide ? foldIn(level.gray, lies) : foldIn(...onItsSide(level.gray, lies));
  const along = fold === undefined ? undefined : wide ? fold : small.height - fold;
  return {
    skew: Math.round(skew * 1000) / 1000,
    paper: {
      x0: lies.x0 * points,
      y0: (small.height - lies.y1) * points,
      x1: lies.x1 * points,
      y1: (small.height - lies.y0) * points,
    },
    ...(along === undefined ? {} : { fold: along * points }),
    ...(isBlank(view) ? { blank: true as const } : {}),
  };
}

/** A mark on a page that is not blank is at least so high or wide and has so much ink, in mm: the smallest figure has, dirt has not. */
const [LEAST_MARK, LEAST_INK] = [1.3, 0.35];
/** So far in from its sides, in mm, paper that lies askew may still show what is beyond them. */
const FRAME_MM = 4;

/** Whether paper has nothing on it but dirt: no mark as large as a figure, well within its sides. */
function isBlank({ small: { width, height }, finds, paper, ink }: View): boolean {
  const dots = finds / 25.4;
  const frame = ({ at = 0, slope = 0 }: Partial<PaperSide> = {}, long: number) =>
    Math.ceil(at + (Math.abs(slope) * long) / 2 + FRAME_MM * dots);
  const within = {
    x0: frame(paper.left, height),
    x1: width - frame(paper.right, height),
    y0: frame(paper.head, width),
    y1: height - frame(paper.foot, width),
  };
  const inside = ink.slice();
  keepWithin(inside, width, height, within, 0);
  return marksIn(inside, width, height).every(
    ({ x0, x1, y0, y1, ink: count }) =>
      Math.max(x1 - x0, y1 - y0) < LEAST_MARK * dots || count < LEAST_INK * dots * dots,
  );
}

/** A picture and a box in it with across for down. */
function onItsSide({ width, height, light }: Gray, { x0, y0, x1, y1 }: Box): [Gray, Box] {
  const turned = new Uint8Array(light.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) turned[x * height + y] = light[y * width + x]!;
  return [
    { width: height, height: width, light: turned },
    { x0: y0, y0: x0, x1: y1, y1: x1 },
  ];
}

interface Reading {
  numbers: ReadNumber[];
  leans?: Turn;
}

/** Reads a scan whose lines run across or down: which way up it stands, and its lone numbers. */
async function readLevel(view: View, down: boolean): Promise<Reading> {
  const { gray, ppi, finds, skew } = view;
  const angle = skew + (down ? 90 : 0);
  // About as fine as lines are found in is as good.
  const k = Math.abs(FIND_PPI / finds - 1) < 0.02 ? 1 : FIND_PPI / finds;
  const level = view.level(angle, k);
  const lies = boxAround(sidesOf(view).map(({ x, y }) => level.to(x, y)));
  const { width, height } = level.gray;
  const ink = inkIn(level.gray, Math.round(FIND_PPI * AROUND));
  keepWithin(ink, width, height, lies, EDGE_MM * (FIND_PPI / 25.4));
  const marks = marksIn(ink, width, height);
  const fine = (mark: Mark, over: boolean) => cropOf(gray, ppi / FIND_PPI, angle, mark, over);
  const lone = loneAmong(marks, lies, (lies.y1 - lies.y0) * FOLIO_DEPTH, MOST_LONE);
  const readLone = async (over: boolean): Promise<Read[]> => {
    const lines = await readLines(
      lone.map((mark) => fine(mark, over)),
      'numbers',
    );
    return lone.flatMap((mark, n) => numberIn(lines[n]?.words ?? [], mark));
  };
  // Most stand upright: their numbers are read along with their words.
  const [told, up] = await Promise.all([isUpsideDown(linesAmong(marks, MOST_LINES), fine), readLone(false)]);
  const turned = told === false ? [] : await readLone(true);
  // Without words only numbers tell, and only those that are none upside down.
  const over = told ?? clearly(oneWay(up), oneWay(turned));
  if (over === undefined) return { numbers: [] };
  const numbers = over ? turned : up;
  const leans = quarters((down ? -90 : 0) + (over ? 180 : 0));
  return { leans, numbers: numbers.map((each) => seen(each, level, view, leans)) };
}

type Read = { mark: Mark; value: number; sure: number };
function numberIn(words: readonly { text: string; sure: number }[], mark: Mark): Read[] {
  const [word, more] = words;
  if (!word || more || word.sure < SURE_NUMBER || !/^\d{1,4}$/.test(word.text)) return [];
  return [{ mark, value: Number(word.text), sure: Math.round(word.sure) }];
}

const oneWay = (numbers: readonly Read[]): number =>
  numbers.reduce((sum, { value, sure }) => (ONE_WAY.test(String(value)) ? sum + sure : sum), 0);

/** A number where it stands on the page as seen. */
function seen({ mark, value, sure }: Read, level: Level, { finds, small }: View, turn: Turn): ReadNumber {
  const { x, y } = level.from((mark.x0 + mark.x1) / 2, (mark.y0 + mark.y1) / 2);
  return { value, x: (x * 72) / finds, y: ((small.height - y) * 72) / finds, turn, sure };
}

/** Takes ink away that lies outside a box, or nearer to its sides than `edge`. */
function keepWithin(
  ink: Uint8Array,
  width: number,
  height: number,
  { x0, y0, x1, y1 }: Box,
  edge: number,
): void {
  for (let y = 0; y < height; y++) {
    if (y < y0 + edge || y >= y1 - edge) {
      ink.fill(0, y * width, (y + 1) * width);
      continue;
    }
    ink.fill(0, y * width, y * width + Math.max(0, Math.ceil(x0 + edge)));
    ink.fill(0, y * width + Math.min(width, Math.floor(x1 - edge)), (y + 1) * width);
  }
}

/** How high letters are that are read best, in dots; the longest picture of a line; and how much finer than it is a scan is read. */
const [READ_HIGH, READ_LONG, FINER] = [36, 560, 2.2];

/** A mark as a picture to read, black on white with some room around it; `by` dots of the scan are one of where it was found. */
function cropOf(gray: Gray, by: number, angle: number, { x0, y0, x1, y1 }: Mark, over: boolean): Gray {
  const room = (y1 - y0) * 0.6;
  const scale = Math.min(FINER, READ_HIGH / ((y1 - y0) * by));
  const crop = turnedBack(
    gray,
    angle,
    {
      x: (x0 - room) * by,
      y: (y0 - room) * by,
      width: Math.min((x1 - x0 + 2 * room) * by, READ_LONG / scale),
      height: (y1 - y0 + 2 * room) * by,
    },
    scale,
  );
  stretch(crop.light);
  if (over) crop.light.reverse();
  return crop;
}

/** Paper becomes white, ink black. */
function stretch(light: Uint8Array): void {
  const counts = new Uint32Array(256);
  for (const tone of light) counts[tone]!++;
  const at = (share: number) => {
    let [sum, tone] = [0, 0];
    while (tone < 255 && (sum += counts[tone]!) < share * light.length) tone++;
    return tone;
  };
  const [black, white] = [at(0.02), at(0.6)];
  const by = 255 / Math.max(30, white - black);
  for (let n = 0; n < light.length; n++) light[n] = Math.max(0, Math.min(255, (light[n]! - black) * by));
}

/** Whether lines of words stand upside down; undefined where they cannot be read either way. */
async function isUpsideDown(
  lines: readonly Mark[],
  fine: (mark: Mark, over: boolean) => Gray,
): Promise<boolean | undefined> {
  let [up, down] = [0, 0];
  for (const line of lines) {
    const [as] = await readLines([fine(line, false)], 'words');
    if (isSure(as?.words ?? [])) return false;
    const [over] = await readLines([fine(line, true)], 'words');
    up += surety(as?.words ?? []);
    down += surety(over?.words ?? []);
    if (Math.max(up, down) > PLENTY && Math.max(up, down) > CLEAR * Math.min(up, down)) break;
  }
  return clearly(up, down);
}

/** Whether the second is clearly more than the first, or less; undefined where neither is. */
const clearly = (up: number, down: number): boolean | undefined =>
  Math.max(up, down) < SURE_WORD || Math.max(up, down) < BETTER * Math.min(up, down) ? undefined : down > up;

const isSure = (words: readonly { text: string; sure: number }[]): boolean =>
  words.filter(({ text, sure }) => WORD.test(text) && text.length > 3 && sure > SURELY).length >=
  ENOUGH_WORDS;

const surety = (words: readonly { text: string; sure: number }[]): number =>
  words.reduce((sum, { text, sure }) => (WORD.test(text) && sure > SURE_WORD ? sum + sure : sum), 0);
