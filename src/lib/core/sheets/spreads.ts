import { spreadsOf } from '../pages/leaves';
import { backSide, frontSide } from '../pages/page';
import type { PageList, Spine } from '../model/page';
import { commonestSize } from '../pages/sizes';
import type { Forme } from './forme';
import { asItLies, openFaces, plannedPages, stripForme, type OpenFace } from './leafStrip';
import { planToSize } from './press';
import { NO_JOB, type SheetPlan } from './plan';
import type { MarkSettings } from './marks';
import { entryOf } from '../entries';

interface MarksOf {
  marks: MarkSettings;
}

/** Each page by itself, with what folds out beside it and its marks, on a sheet as large as that takes. Undefined for an empty list. */
export function planSingle(list: PageList, { marks }: MarksOf, job = NO_JOB): SheetPlan | undefined {
  const formes = openFaces(list).map((face) => openForm(list.book.spine, ...sidesOf([face])));
  return toSize(list, formes, marks, job);
}

/** Facing pages side by side as a reader meets them, fold-outs open, bleed between them left out. Undefined for an empty list. */
export function planSpreads(list: PageList, { marks }: MarksOf, job = NO_JOB): SheetPlan | undefined {
  const { book } = list;
  const [front, back] = [frontSide(book), backSide(book)];
  const open = openFaces(list);
  const of = new Map(open.map((face) => [face.index, face]));
  const withFront = new Map(
    spreadsOf(list.pages.length, book).flatMap((spread): [number, number | undefined][] =>
      spread[back] === undefined ? [] : [[spread[back], spread[front]]],
    ),
  );
  const facing = new Set([...withFront.values()].filter((index) => index !== undefined));
  const formes = open.flatMap((face): Forme[] => {
    if (face.index !== undefined && facing.has(face.index)) return [];
    const beside = face.index === undefined ? undefined : withFront.get(face.index);
    const both = beside === undefined ? [face] : [face, entryOf(of, beside)];
    return [openForm(book.spine, ...sidesOf(both))];
  });
  return toSize(list, formes, marks, job);
}

/** The spreads as they are handed over: at their trim, without marks. */
export const planProof = (list: PageList): SheetPlan | undefined =>
  planSpreads(list, { marks: { trim: false, fold: false } });

function toSize(
  list: PageList,
  formes: readonly Forme[],
  marks: MarksOf['marks'],
  job: typeof NO_JOB,
): SheetPlan | undefined {
  const cell = commonestSize(list.pages);
  return cell && planToSize({ formes, pages: plannedPages(list), cell, blanksAdded: 0, job }, marks);
}

type Shown = OpenFace['shown'];
const sidesOf = (faces: readonly OpenFace[]): [front: Shown, back: Shown] => [
  faces.find(({ face }) => face === 'front')?.shown ?? [],
  faces.find(({ face }) => face === 'back')?.shown ?? [],
];

/** The two halves of an open book, each from the spine outwards, joined there. */
function openForm(spine: Spine, front: Shown, back: Shown): Forme {
  // The front of a leaf lies at the right of a spine at the left, else at the left of it or below it.
  const [fronts, backs] = [asItLies(front, spine), asItLies(back, spine).reverse()];
  return stripForme(spine === 'left' ? [...backs, ...fronts] : [...fronts, ...backs], spine);
}
