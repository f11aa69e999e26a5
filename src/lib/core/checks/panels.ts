import { mm } from '../measure/unit';
import type { Page, PageList } from '../model/page';
import { leafOf } from '../pages/leaves';
import {
  FOLD_IN,
  foldInWidth,
  LEAST_NARROWER,
  leafWidth,
  pagesOfLeaf,
  panelsOf,
  panelWidth,
  type Panel,
} from '../pages/panels';
import { commonestSize } from '../pages/sizes';
import { pickedOf } from '../select/selection';
import type { Check, CheckKind, FindingOf, JobState } from './finding';
import { entryAt, firstOf, foundIn } from '../entries';
import type { StepDraft } from '../docket/steps';
import { TOLERANCES } from '../measure/tolerances';

/** What this family finds. */
type Found =
  | { code: 'panel-too-wide'; width: number; over: number }
  | { code: 'panel-height'; height: number; leaf: number }
  | { code: 'fold-at-trim'; width: number; book: number }
  | { code: 'panels-meet'; together: number; space: number }
  | { code: 'panel-one-face'; given: number };
type Mends = 'narrow-panel' | 'panel-height' | 'narrow-leaf';
type Finding = FindingOf<Found, Mends>;

/** The fold of a fold-out stays at least this far inside the fore-edge trim. By practice (3 to 6 mm). */
const LEAST_INSIDE = mm(3);

/** Fold-outs that buckle, that are not as high as their leaf, that the knife opens, that meet when folded in, and panels with one face. */
const checkPanels: Check<Found, Mends> = (state) => {
  const panels = panelsOf(state.list);
  const leaves = new Map<number, Panel[]>();
  for (const panel of panels) leaves.set(panel.leaf, [...(leaves.get(panel.leaf) ?? []), panel]);
  return [
    ...[...leaves.values()].flatMap((those) => [
      ...tooWide(those, state.list),
      ...otherHeight(those, state.list),
      ...atTheKnife(those, leaves.size, state.list),
    ]),
    ...meeting(leaves, state.list),
    ...oneFaced(state),
  ];
};

/** The pages of a panel's leaf, front first. */
const pagesOf = (panel: Panel, list: PageList): Page[] =>
  pagesOfLeaf(panel, list).map((index) => entryAt(list.pages, index));

/** Panels as wide as what they fold over, or nearly. */
function tooWide(panels: readonly Panel[], list: PageList): Finding[] {
  let over = leafWidth(firstOf(panels), list);
  return panels.flatMap((panel): Finding[] => {
    const [width, room, faces] = [panelWidth(panel), over, [panel.front, panel.back]];
    over = width;
    if (width <= room - LEAST_NARROWER + TOLERANCES.place) return [];
    return [
      {
        code: 'panel-too-wide',
        width,
        over: room,
        level: width >= room - TOLERANCES.place ? 'stop' : 'look',
        stage: 'pages',
        pages: faces.map(({ id }) => id),
        mend: {
          code: 'narrow-panel',
          steps: [narrow(faces, foldInWidth(room, FOLD_IN), panel.front.trim.height)],
        },
      },
    ];
  });
}

/** Faces of panels that are not as high as their leaf: one piece of paper has one height. */
function otherHeight(panels: readonly Panel[], list: PageList): Finding[] {
  const { height } = entryAt(list.pages, firstOf(panels).on).trim;
  return panels.flatMap((panel): Finding[] => {
    const faces = [panel.front, panel.back];
    const odd = faces.find(({ trim }) => Math.abs(trim.height - height) > TOLERANCES.size);
    if (!odd) return [];
    return [
      {
        code: 'panel-height',
        height: odd.trim.height,
        leaf: height,
        level: 'stop',
        stage: 'pages',
        pages: faces.map(({ id }) => id),
        mend: { code: 'panel-height', steps: [narrow(faces, panelWidth(panel), height)] },
      },
    ];
  });
}

/** A fold at the trimmed fore edge: only where the book is trimmed after folding, so where some leaf has no panel. */
function atTheKnife(panels: readonly Panel[], leavesWith: number, list: PageList): Finding[] {
  const leaves = leafOf(list.pages.length - 1, list.book).leaf;
  const book = commonestSize(list.pages)!;
  const first = firstOf(panels);
  const width = leafWidth(first, list);
  if (leavesWith >= leaves || width <= book.width - LEAST_INSIDE + TOLERANCES.place) return [];
  const pages = pagesOf(first, list);
  const room = book.width - LEAST_INSIDE;
  const steps: StepDraft[] = [narrow(pages, room, first.front.trim.height)];
  let over = room;
  for (const panel of panels) {
    const width = Math.min(panelWidth(panel), foldInWidth(over, FOLD_IN));
    if (width < panelWidth(panel))
      steps.push(narrow([panel.front, panel.back], width, panel.front.trim.height));
    over = width;
  }
  return [
    {
      code: 'fold-at-trim',
      width,
      book: book.width,
      level: 'stop',
      stage: 'pages',
      pages: pages.map(({ id }) => id),
      mend: { code: 'narrow-leaf', steps },
    },
  ];
}

/** Two fold-outs that fold in over one spread from both ends, wider together than the space between. */
function meeting(leaves: ReadonlyMap<number, readonly Panel[]>, list: PageList): Finding[] {
  return [...leaves].flatMap(([leaf, panels]): Finding[] => {
    const [first, other] = [firstOf(panels), leaves.get(leaf + 1)?.[0]];
    if (!other || first.folds !== 'back' || other.folds !== 'front') return [];
    const space = leafWidth(first, list) + leafWidth(other, list);
    const together = panelWidth(first) + panelWidth(other);
    if (together <= space - LEAST_NARROWER + TOLERANCES.place) return [];
    const pages = [first.front, first.back, other.front, other.back].map(({ id }) => id);
    return [{ code: 'panels-meet', together, space, level: 'stop', stage: 'pages', pages }];
  });
}

/** Steps whose last panel was given a front only. */
const oneFaced = ({ docket, replay }: JobState): Finding[] =>
  docket.steps.flatMap((step, n): Finding[] => {
    if (
      step.kind !== 'panel' ||
      step.off ||
      !step.show ||
      replay.failed.some((failed) => failed.step.id === step.id)
    )
      return [];
    const before = replay.after[n - 1];
    const given = before ? pickedOf(step.show, before).length : 0;
    const made =
      entryAt(replay.after, n).panels?.filter(({ panel }) => panel!.id.startsWith(`${step.id}:`)) ?? [];
    if (given % 2 === 0 || !made.length) return [];
    const face = entryAt(made, given);
    return [
      { code: 'panel-one-face', given, level: 'look', stage: 'pages', pages: [face.id], step: step.id },
    ];
  });

const narrow = (pages: readonly Page[], width: number, height: number): StepDraft => ({
  kind: 'trim',
  pages: { ids: pages.map(({ id }) => id) },
  width,
  height,
  content: 'hold',
  fixed: { x: 'spine', y: 'head' },
});

/** Ids of pages and panel faces whose fore edge is a fold, because a panel hangs there. */
export function foldedAtFore(list: PageList): ReadonlySet<string> {
  const panels = panelsOf(list);
  const folded = new Set<string>();
  for (const panel of panels) {
    if (panel.nth === 1) for (const page of pagesOf(panel, list)) folded.add(page.id);
    else {
      const inner = foundIn(panels, ({ leaf, nth }) => leaf === panel.leaf && nth === panel.nth - 1);
      folded.add(inner.front.id).add(inner.back.id);
    }
  }
  return folded;
}

/** The family of these findings. */
export const panels: CheckKind<'panels', Found, Mends> = { kind: 'panels', check: checkPanels };
