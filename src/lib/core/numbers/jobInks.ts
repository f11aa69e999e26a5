import { overprints } from './placeLaid';
import type { Purpose } from '../model/laid';
import type { Colour } from '../ink/colour';
import { coverPages } from '../pages/coverParts';
import { artsOf, facesOf } from '../pages/page';
import type { Art } from '../model/art';
import type { InkChange, Page, PageList } from '../model/page';
import type { Ink, Surveys } from '../model/survey';
import { entryAt } from '../entries';

/** The plates of process colour. */
export const PROCESS = ['Cyan', 'Magenta', 'Yellow', 'Black'] as const;
/** What the process colours that a file has print with; RGB and Lab have no plates before they are converted. */
const PLATES: Record<string, readonly string[]> = { CMYK: PROCESS, Grey: ['Black'] };

/** What is asked of the steps of a job: which one took a file in, and what an overlay is for. */
export interface InkStep {
  id: string;
  kind: string;
  off?: true | undefined;
  source?: string;
  purpose?: Purpose;
}

/** An ink of a job: where it is and which steps brought it. */
export interface JobInk extends Ink {
  /** A name that it came with, before any change. */
  given: string;
  /** Ids of the pages that have it. */
  pages: string[];
  /** Ids of the steps that brought it. */
  steps: string[];
}

/** The inks of a source page; all of its file's where an older survey does not tell them apart by page. */
export function inksOfPage({ source, index }: Pick<Art, 'source' | 'index'>, surveys: Surveys): Ink[] {
  const survey = surveys[source];
  const page = survey?.pages[index];
  return page ? (page.inks?.map((n) => entryAt(survey.inks, n)) ?? survey.inks) : [];
}

/** What a spot ink is called after the changes of a list. */
export const inkName = (name: string, changes: readonly InkChange[] = []): string =>
  changes.reduce((called, { from, to }) => (called === from ? to : called), name);

/** Every name that files and steps give an ink which is called so after the changes of a list. */
export function namesOf(called: string, list: PageList, surveys: Surveys): string[] {
  const given = [
    called,
    ...Object.values(surveys).flatMap(({ inks }) => inks.map(({ name }) => name)),
    ...facesOf(list).flatMap(({ lines }) =>
      (lines ?? []).flatMap(({ lines: { ink } }) => (ink.as === 'spot' ? [ink.name] : [])),
    ),
  ];
  return [...new Set(given)].filter((name) => name === called || inkName(name, list.inks) === called);
}

/** The plates that a colour prints on. */
export function platesOf(ink: Colour): string[] {
  if (ink.as === 'spot') return [ink.name];
  if (ink.as === 'grey') return ink.black > 0 ? ['Black'] : [];
  const shares = [ink.c, ink.m, ink.y, ink.k];
  return PROCESS.filter((_, n) => entryAt(shares, n) > 0);
}

/** The spot inks that are printed, not those that only a tool follows; each as what it is called and its full tint, by the name it came with. */
export function spotsOf(
  list: PageList,
  surveys: Surveys,
  docket: { steps: readonly InkStep[] },
): { name: string; ink: Extract<Colour, { as: 'spot' }> }[] {
  const tools = new Set(
    docket.steps.flatMap((step) => (step.purpose && overprints(step.purpose) ? [step.id] : [])),
  );
  return inksOf(list, surveys, docket).flatMap(({ kind, name, given, mix, steps }) =>
    kind === 'spot' && !steps.every((id) => tools.has(id))
      ? [{ name, ink: { as: 'spot' as const, name: given, tint: 1, mix: mix ? [...mix] : [0, 0, 0, 1] } }]
      : [],
  );
}

/** All inks of a job, its cover's too, by plate, process inks first, then spots by name. */
export function inksOf(list: PageList, surveys: Surveys, { steps }: { steps: readonly InkStep[] }): JobInk[] {
  const found = new Map<string, { ink: Ink & { given: string }; pages: Set<string>; steps: Set<string> }>();
  const note = (ink: Ink, page: string, step: string | undefined) => {
    const name = ink.kind === 'spot' ? inkName(ink.name, list.inks) : ink.name;
    const key = `${ink.kind} ${name}`;
    const known = found.get(key) ?? {
      ink: { ...ink, name, given: ink.name },
      pages: new Set(),
      steps: new Set(),
    };
    found.set(key, known);
    known.pages.add(page);
    if (step) known.steps.add(step);
  };
  const takenBy = new Map(
    steps.flatMap((step) => (step.source && !step.off ? [[step.source, step.id]] : [])),
  );
  const noteArt = (page: Page, source: string, index: number, step: string | undefined) => {
    for (const ink of inksOfPage({ source, index }, surveys)) {
      const plates = ink.kind === 'process' ? (PLATES[ink.name] ?? [ink.name]) : [ink.name];
      for (const name of plates) note({ ...ink, name }, page.id, step);
    }
  };
  for (const page of [...facesOf(list), ...coverPages(list).map((each) => each.page)]) {
    for (const { source, index } of artsOf(page)) noteArt(page, source, index, takenBy.get(source));
    for (const { arts, step } of page.laid ?? [])
      for (const { source, index } of arts) noteArt(page, source, index, step);
    for (const { lines, step, ...more } of page.matter ?? page.lines ?? []) {
      if ('hidden' in more && more.hidden) continue;
      for (const name of platesOf(lines.ink))
        note(
          lines.ink.as === 'spot' ? { name, kind: 'spot', mix: lines.ink.mix } : { name, kind: 'process' },
          page.id,
          step,
        );
    }
  }
  const order = ({ kind, name }: Ink) => {
    const plate = PROCESS.findIndex((each) => each === name);
    return kind === 'process' ? `0${plate < 0 ? 9 : plate}${name}` : `1${name.toLowerCase()}`;
  };
  return [...found.values()]
    .sort((a, b) => (order(a.ink) < order(b.ink) ? -1 : 1))
    .map(({ ink, pages, steps: by }) => ({ ...ink, pages: [...pages], steps: [...by] }));
}
