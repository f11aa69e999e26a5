import type { Sides, Size } from '../measure/box';
import { mm } from '../measure/unit';
import type { Step } from '../docket/steps';
import { FACES } from '../model/faces';
import { textHeight } from '../numbers/faceMetrics';
import { coverPages, sideOfPart } from '../pages/coverParts';
import type { CoverPart } from '../model/page';
import { artBox, bleedSides } from '../pages/page';
import type { PageList } from '../model/page';
import { coverPress } from '../sheets/coverSheet';
import type { CoverPlan, SheetPlan } from '../sheets/plan';
import { PLAIN_COVER, SPINE_TEXT } from '../sheets/scheme';
import type { Signatures } from '../sheets/schemes';
import { lengthAlong } from '../sheets/leafStrip';
import type { Check, CheckKind, FindingOf, MendOf } from './finding';
import { tooSmall } from './sheets';
import { TOLERANCES } from '../measure/tolerances';

type TooSmall = ReturnType<typeof tooSmall>[number];
/** What this family finds. */
type Found =
  | { code: 'cover-unplanned' | 'spine-unknown' }
  | { code: 'cover-missing' | 'cover-bare'; parts: readonly CoverPart[] }
  | { code: 'spine-impossible'; width: number; leaves: number; leaf: number }
  | { code: 'spine-differs'; typed: number; worked: number }
  | { code: 'spine-text-large'; height: number; room: number }
  | {
      code: 'cover-size';
      part: CoverPart;
      size: Size;
      wanted: Size;
      /** Of a whole side: what its width is the sum of. */
      sum?: { page: number; spine: number; flap: number };
    }
  | { code: 'cover-bleed'; part: CoverPart; there: number; wanted: number };
type Mends = 'worked-spine' | 'cover-to-sum';
type Finding = FindingOf<Found, Mends> | TooSmall;
type Mend = MendOf<Mends>;

/** By practice: the thinnest bible paper and the thickest board that leaves are made of. */
const PAPERS = { least: mm(0.025), most: mm(0.6) };
/** By practice: paper comes out up to a tenth thicker or thinner than its maker says. */
const BULK_VARIES = 0.1;
/** What stays free beside the text on a spine, by practice: it may end up so far off the middle. */
const BESIDE_TEXT = mm(1.5);
/** By practice. */
const BLEED = mm(3);

const AT = { stage: 'sheets', pages: [] } as const;

/** A cover that does not go round its book: its parts, their sizes, the spine, its text, its bleed, and its sheet. */
const checkCover: Check<Found, Mends, TooSmall> = ({ list, docket, plan }) => {
  if (!coverPages(list).length) return [];
  const { scheme } = docket;
  if (scheme.kind !== 'signatures') return [{ ...AT, code: 'cover-unplanned', level: 'look' }];
  const { cover } = plan ?? {};
  if (!plan || !cover) return [];
  const settings = scheme.cover ?? PLAIN_COVER;
  return [
    ...lacking(list, cover, settings),
    ...spineThickness(list, cover, settings),
    ...spineText(cover, settings),
    ...offSizes(list, scheme, plan, cover, docket.steps),
    ...bleeds(list),
    ...tooSmall(cover.plan, coverPress(scheme), (stock) => ({ cover: { ...settings, stock } }), 'cover'),
  ];
};

type Settings = NonNullable<Signatures['cover']>;

/** Outer pages that are missing, and other parts that come out as white paper where no whole outside stands for them. */
function lacking({ cover: pages }: PageList, cover: CoverPlan, { text }: Settings): Finding[] {
  const isThere = (part: CoverPart) => !!pages?.outside || !!pages?.[part];
  const missing = (['front', 'back'] as const).filter((part) => !isThere(part));
  const bare = cover.parts.flatMap(({ part }) =>
    !isThere(part) && (part.endsWith('flap') || (part === 'spine' && !text?.trim())) ? [part] : [],
  );
  return [
    ...(missing.length ? [{ ...AT, code: 'cover-missing', level: 'look', parts: missing } as const] : []),
    ...(bare.length ? [{ ...AT, code: 'cover-bare', level: 'look', parts: bare } as const] : []),
  ];
}

/** A spine that no leaves of paper give, that nobody has worked out, or that is typed otherwise than it works out. */
function spineThickness({ cover: pages }: PageList, { spine }: CoverPlan, settings: Settings): Finding[] {
  const { width, worked, leaves } = spine;
  if (worked === undefined) {
    if (settings.spine !== undefined) return [];
    const glued = spine.added + Math.max(0, spine.signatures - 1) * spine.thread;
    const leaf = (width - glued) / leaves;
    const isPaper = leaf >= PAPERS.least && leaf <= PAPERS.most;
    // What the pages of the cover leave for the spine has to be as thick as leaves of some paper are.
    const given = pages?.outside || pages?.spine;
    return given && !isPaper
      ? [{ ...AT, code: 'spine-impossible', level: 'stop', width, leaves, leaf }]
      : [{ ...AT, code: 'spine-unknown', level: 'look' }];
  }
  const off = Math.abs(worked - width);
  if (off <= TOLERANCES.seen) return [];
  return [
    {
      ...AT,
      code: 'spine-differs',
      level: off > TOLERANCES.machine + BULK_VARIES * worked ? 'stop' : 'look',
      typed: width,
      worked,
      mend: { code: 'worked-spine', scheme: { cover: { ...settings, spine: undefined } } },
    },
  ];
}

/** Text on the spine that is higher than what is free of it. */
function spineText({ spine }: CoverPlan, { text, textSize = SPINE_TEXT.plain }: Settings): Finding[] {
  if (!text?.trim()) return [];
  const { above, below } = textHeight({ face: FACES[0], weight: 'regular', size: textSize });
  const room = spine.width - 2 * BESIDE_TEXT;
  if (above + below <= room) return [];
  return [{ ...AT, code: 'spine-text-large', level: 'look', height: above + below, room: Math.max(0, room) }];
}

/** The size that a part has to have. */
function wanted(part: CoverPart, { size, parts }: CoverPlan, list: PageList): Size | undefined {
  if (part === 'outside' || part === 'inside') return size;
  const on = part === 'inside-front' ? 'front' : part === 'inside-back' ? 'back' : part;
  const found = parts.find((each) => each.part === on);
  if (!found) return undefined;
  return list.book.spine === 'head'
    ? { width: size.width, height: found.length }
    : { width: found.length, height: size.height };
}

/** Parts that are not as large as the book, the spine and the flaps ask for. */
function offSizes(
  list: PageList,
  scheme: Signatures,
  plan: SheetPlan,
  cover: CoverPlan,
  steps: readonly Step[],
): Finding[] {
  const off = coverPages(list).flatMap(({ part, page }) => {
    const size = wanted(part, cover, list);
    if (!size) return [];
    const by = Math.max(Math.abs(size.width - page.trim.width), Math.abs(size.height - page.trim.height));
    return by > TOLERANCES.seen ? [{ part, size, trim: page.trim, by }] : [];
  });
  const [worst] = [...off].sort((a, b) => b.by - a.by);
  if (!worst) return [];
  const { spine } = list.book;
  const flap = scheme.cover?.flap ?? 0;
  return [
    {
      code: 'cover-size',
      part: worst.part,
      size: worst.trim,
      wanted: worst.size,
      sum:
        worst.part === 'outside' || worst.part === 'inside'
          ? { page: lengthAlong(plan.cell, spine), spine: cover.spine.width, flap }
          : undefined,
      level: worst.by > TOLERANCES.machine ? 'stop' : 'look',
      stage: 'sheets',
      pages: [],
      ...sizeMend(off, steps),
    },
  ];
}

function sizeMend(off: readonly { part: CoverPart; size: Size }[], steps: readonly Step[]): { mend?: Mend } {
  const change = steps.flatMap((step) => {
    if (step.kind !== 'cover' || step.off) return [];
    const sizes = off.filter(({ part }) => step.parts.includes(part));
    if (!sizes.length) return [];
    return [
      {
        ...step,
        sizes: { ...step.sizes, ...Object.fromEntries(sizes.map(({ part, size }) => [part, size])) },
      },
    ];
  });
  return change.length ? { mend: { code: 'cover-to-sum', change } } : {};
}

/** Parts whose art, or whose bleed, ends too soon at the edges of the cover that are cut. */
function bleeds(list: PageList): Finding[] {
  const short = coverPages(list).flatMap(({ part, page }) => {
    const art = artBox(page);
    if (!art) return [];
    const { width, height } = page.trim;
    const reach: Sides = { left: -art.x0, right: art.x1 - width, head: art.y1 - height, foot: -art.y0 };
    const bleed = bleedSides(page.bleed, sideOfPart(part, list.book));
    const there = cutSides(part, list).map((side) =>
      page.mirrored && reach[side] >= -TOLERANCES.reach ? bleed[side] : Math.min(reach[side], bleed[side]),
    );
    const least = Math.max(0, Math.min(...there));
    return least < BLEED - TOLERANCES.reach ? [{ part, there: least }] : [];
  });
  const [worst] = short.sort((a, b) => a.there - b.there);
  if (!worst) return [];
  return [{ code: 'cover-bleed', ...worst, wanted: BLEED, level: 'look', stage: 'sheets', pages: [] }];
}

/** The sides of a part that the knife cuts: not those at the spine or at a fold. */
function cutSides(part: CoverPart, { cover = {}, book }: PageList): (keyof Sides)[] {
  const head = book.spine === 'head';
  const ends = head ? (['foot', 'head'] as const) : (['left', 'right'] as const);
  const along = head ? (['left', 'right'] as const) : (['head', 'foot'] as const);
  if (part === 'outside' || part === 'inside') return [...along, ...ends];
  if (part === 'spine') return [...along];
  const front = part.includes('front');
  const flap = !part.includes('flap') && (front ? cover['front-flap'] : cover['back-flap']);
  // From outside the front lies at the far end of a book bound at the left; from inside it is the other way round.
  const far = head ? !front : (book.spine === 'left') === (front !== part.startsWith('inside'));
  return flap ? [...along] : [...along, ends[far ? 1 : 0]];
}

/** The family of these findings. */
export const cover: CheckKind<'cover', Found, Mends, TooSmall> = { kind: 'cover', check: checkCover };
