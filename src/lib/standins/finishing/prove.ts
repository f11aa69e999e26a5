import type { Finished, FinishedPage } from '../../core/finish/line/finished';
import { runLine } from '../../core/finish/line/runLine';
import type { FinishPlan, OperationOf } from '../../core/finish/operations';
import { standsOf, type Edge, type PageVerdict, type Proof } from '../../core/finish/proof';
import { intersect, sizeBox, type Box } from '../../core/measure/box';
import { applyToBox, compose, invert, turnOver, type Matrix } from '../../core/measure/matrix';
import { TOLERANCES } from '../../core/measure/tolerances';
import type { Gray } from '../../raster/gray';
import type { Drawable, Wanted } from './drawable';
import { edgesOf } from './edges';
import { Judge, type Met } from './judge';
import { cropped, type Dots } from './picture';

/** All that a proof knows: the sides as they go to the press, in their order; what is done to them; and what is to come out. */
export interface ProofTask {
  sides: readonly Drawable[];
  finish: FinishPlan;
  wanted: (product: number) => readonly Wanted[];
  ppi: number;
  /** Whether to measure how much error the edges stand. */
  withEdges?: boolean | undefined;
  /** Is given each page that is wrong with a picture of what is met and of what was intended. */
  onWrong?: ((verdict: PageVerdict, pictures: { met: Gray; meant: Gray }) => void) | undefined;
  /** Tells how many sheets are done; throws to give up. */
  onSheet?: ((done: number, of: number) => void | Promise<void>) | undefined;
}

const POINTS_AN_INCH = 72;
/** How many dots high the pictures of wrong pages are. */
const PICTURED = 220;
type Print = OperationOf<'print'>;

/**
 * Prints the sides on a press, does what the plan says with the sheets, and holds every page that a reader meets against the page
 * that was intended. It reads nothing of where pages were put on sheets.
 */
export async function prove({
  sides,
  finish,
  wanted,
  ppi,
  withEdges,
  onWrong,
  onSheet,
}: ProofTask): Promise<Proof> {
  const scale = ppi / POINTS_AN_INCH;
  const out = runLine(finish);
  const prints = finish.operations.flatMap((each) => (each.kind === 'print' ? [each] : []));
  const judge = new Judge(finish.made, wanted);
  const bySheet = pagesBySheet(out);
  const verdicts: PageVerdict[] = absent(out, finish, wanted);
  const edges: Edge[] = [];
  const printed = sheetsOf(prints);
  for (const [done, { sheet, print, first }] of printed.entries()) {
    for (const face of ['front', 'back'] as const) {
      const met = (bySheet.get(sheet) ?? []).filter(({ page }) => page.face === face);
      if (!met.length) continue;
      const side = face === 'front' ? sides[first] : print.sides === 2 ? sides[first + 1] : undefined;
      const picture = side && drawSide(side, scale);
      for (const each of met) {
        const seen = metOn(each, print, side, picture, scale);
        const verdict = judge.verdictOf(seen);
        verdicts.push(verdict);
        if (verdict.verdict.is !== 'same') onWrong?.(verdict, judge.pictured(seen, PICTURED));
        if (withEdges) edges.push(...edgesOf(seen, side, finish.made));
      }
    }
    await onSheet?.(done + 1, printed.length);
  }
  return {
    version: 1,
    ppi,
    pages: verdicts.sort((a, b) => a.product - b.product || a.copy - b.copy || a.page - b.page),
    ...(withEdges ? { edges: weakest(edges) } : {}),
    joined: out.flatMap(({ product, copy, joined }) =>
      joined.map(([a, b]) => ({ product, copy, leaves: [a, b] as [number, number] })),
    ),
    cutOff: out.flatMap(({ product, copy, cutOff }) => cutOff.map((leaf) => ({ product, copy, leaf }))),
    sides: {
      given: sides.length,
      planned: printed.reduce((sum, { print }) => sum + print.sides, 0),
    },
  };
}

/** Sheets in the order in which their sides follow in the PDF. */
function sheetsOf(prints: readonly Print[]): { sheet: number; print: Print; first: number }[] {
  const all = prints.flatMap((print) => print.sheets.map((sheet) => ({ sheet, print })));
  let first = 0;
  return all
    .sort((a, b) => a.sheet - b.sheet)
    .map((each) => {
      const at = { ...each, first };
      first += each.print.sides;
      return at;
    });
}

/** The weakest of each edge, whichever copy has it, the weakest first. */
function weakest(edges: readonly Edge[]): Edge[] {
  const known = new Map<string, Edge>();
  for (const one of edges) {
    const key = `${one.product} ${one.page} ${one.edge}`;
    const other = known.get(key);
    if (!other || standsOf(one) < standsOf(other)) known.set(key, one);
  }
  return [...known.values()].sort((a, b) => standsOf(a) - standsOf(b));
}

interface OnSheet {
  product: number;
  copy: number;
  index: number;
  page: FinishedPage;
}
function pagesBySheet(out: readonly Finished[]): Map<number, OnSheet[]> {
  const bySheet = new Map<number, OnSheet[]>();
  for (const { product, copy, pages } of out)
    pages.forEach((page, index) => {
      const known = bySheet.get(page.sheet) ?? [];
      bySheet.set(page.sheet, known);
      known.push({ product, copy, index, page });
    });
  return bySheet;
}

/** Pages that are intended and that no finished piece has. */
function absent(
  out: readonly Finished[],
  { operations }: FinishPlan,
  wanted: ProofTask['wanted'],
): PageVerdict[] {
  const counted = operations.flatMap((each) => (each.kind === 'count' ? each.products : []));
  // What is counted and did not come out at all has none of its pages.
  const none = counted
    .filter(({ product }) => out.every((each) => each.product !== product))
    .map(({ product }) => ({ product, copy: 1, pages: [] }));
  return [...out, ...none].flatMap(({ product, copy, pages }) =>
    wanted(product)
      .slice(pages.length)
      .map((_, n) => ({ product, copy, page: pages.length + n, verdict: { is: 'absent' as const } })),
  );
}

/** A side as the press prints it. */
const drawSide = ({ size, draw }: Drawable, scale: number): Gray =>
  draw(
    [scale, 0, 0, -scale, 0, size.height * scale],
    Math.ceil(size.width * scale),
    Math.ceil(size.height * scale),
  );

/** From the front of a sheet to its back as that is seen once the press has turned it over; the same again is the way back. */
const behind = ({ turns, paper }: Print): Matrix =>
  turnOver(turns, (turns === 'vertical' ? paper.width : paper.height) / 2);

/** A finished page with what was printed there: the way from the page to dots of a part of its side. */
function metOn(
  each: OnSheet,
  print: Print,
  side: Drawable | undefined,
  picture: Gray | undefined,
  scale: number,
  shown: Box = sizeBox(each.page.size),
): Met {
  const { page, ...which } = each;
  const toFront = invert(page.matrix);
  const toSide = page.face === 'front' ? toFront : compose(toFront, behind(print));
  const toDots = compose(toSide, [scale, 0, 0, -scale, 0, print.paper.height * scale]);
  const lies = applyToBox(toDots, intersect(shown, sizeBox(page.size)));
  const part: Dots = {
    x0: Math.floor(lies.x0 + TOLERANCES.sum),
    y0: Math.floor(lies.y0 + TOLERANCES.sum),
    x1: Math.ceil(lies.x1 - TOLERANCES.sum),
    y1: Math.ceil(lies.y1 - TOLERANCES.sum),
  };
  // Of a side that was not drawn at this scale, only this part is drawn; where there is no side, paper is white.
  const own = picture ? cropped(picture, part) : side ? drawPart(side, scale, part) : cropped(NOTHING, part);
  return {
    ...which,
    page,
    toSide,
    side,
    scale,
    picture: own,
    toDots: compose(toDots, [1, 0, 0, 1, -part.x0, -part.y0]),
    closer: (closely) => metOn(each, print, side, undefined, Math.max(scale, CLOSE), closely),
  };
}

const NOTHING: Gray = { width: 0, height: 0, light: new Uint8Array() };

/** Where a difference is looked at, 150 dots an inch. */
const CLOSE = 150 / POINTS_AN_INCH;

const drawPart = ({ size, draw }: Drawable, scale: number, { x0, y0, x1, y1 }: Dots): Gray =>
  draw([scale, 0, 0, -scale, -x0, size.height * scale - y0], x1 - x0, y1 - y0);
