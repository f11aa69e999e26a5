import * as z from 'zod';
import { compose, scale, translate } from '../../measure/matrix';
import { heightOf, widthOf } from '../../measure/box';
import { declaredBleed, facesOf, reachOf } from '../../pages/page';
import type { Page } from '../../model/page';
import { indexOfPlace, insertPages, placeSchema } from '../../select/place';
import { resolveSelection } from '../../select/selection';
import type { SurveyPage } from '../../model/survey';
import { defineStep, StepProblem } from '../stepKind';
import { stepBase } from './base';
import { formatted } from './format';
import { entryAt, firstOf } from '../../entries';
import { cleaningSchema } from '../../pages/cleaning';

/** SHA-256 of a source, in hex. */
export const sourceSchema = z.string().regex(/^[0-9a-f]{64}$/);

/** Puts the pages of a source into the list, each at its TrimBox, with the bleed the file declares. */
export const takeIn = defineStep(
  z.object({
    ...stepBase,
    kind: z.literal('take-in'),
    source: sourceSchema,
    /** The name the file had. */
    name: z.string().min(1).max(400),
    /** Which of its pages, as typed positions; all if missing. */
    take: z.string().max(4000).optional(),
    where: placeSchema,
    /** Pixels an inch that the pages of a picture are given; what it states if missing. */
    ppi: z.number().min(1).max(10_000).optional(),
    /** Id of a format of the docket that the new pages get. */
    format: z.string().min(1).max(64).optional(),
    /** The source is a clean copy: of which source, and what was taken off. */
    cleaned: cleaningSchema.extend({ from: sourceSchema }).optional(),
  }),
)({
  kind: 'take-in',
  on: 'pages',
  button: false,
  sources: ({ source, name }) => [{ source, name }],
  apply(list, step, { surveys, formats }) {
    const survey = surveys[step.source];
    if (!survey) throw new StepProblem('source-missing', { name: step.name });
    const here = new Set(facesOf(list).map(({ id }) => firstOf(id.split('/'))));
    let copies = facesOf(list).filter((page) => page.art?.source === step.source).length;
    // Pages taken out and in again must not meet the name of one that stayed.
    // Pages keep their names when their file is cleaned.
    const known = step.cleaned?.from ?? step.source;
    while (survey.pages.some((_, index) => here.has(pageId(known, index, copies)))) copies++;
    const by = step.ppi && survey.picture ? survey.picture.ppi / step.ppi : 1;
    const all = survey.pages.map((page, index) => ({
      ...toPage(page, step.source, index, copies, by),
      id: pageId(known, index, copies),
    }));
    const taken = step.take
      ? resolveSelection(step.take, { ...list, pages: all }).map((index) => entryAt(all, index))
      : all;
    return insertPages(
      list,
      indexOfPlace(step.where, list),
      formatted(taken, step.format, formats, list.book),
    );
  },
});

const pageId = (source: string, index: number, copies: number): string =>
  `${source.slice(0, 12)}:${index + 1}${copies ? `#${copies}` : ''}`;

/** A page of a source at its TrimBox, with the bleed that the file declares, at `by` of its size. */
export function toPage(page: SurveyPage, source: string, index: number, copies: number, by: number): Page {
  const { trim } = page.boxes;
  return {
    id: pageId(source, index, copies),
    art: {
      source,
      index,
      place: compose(translate(-trim.x0, -trim.y0), scale(by)),
      reach: reachOf(page),
      ...(page.empty ? { empty: true } : {}),
    },
    trim: { width: widthOf(trim) * by, height: heightOf(trim) * by },
    bleed: { by: 'side', ...declaredBleed(page) },
    ...(page.label === undefined ? {} : { label: page.label }),
  };
}
