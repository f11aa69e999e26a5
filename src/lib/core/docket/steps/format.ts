import * as z from 'zod';
import type { Format } from '../format';
import { frontSide } from '../../pages/page';
import type { Aspect, Book, Page, Side } from '../../model/page';
import { CENTRE, contentSchema, fixedPointSchema, resizePage, type Resize } from '../../pages/resize';
import { selectionSchema, type Selection } from '../../model/selection';
import { defineStep, StepProblem } from '../stepKind';
import { changePages, stepBase } from './base';
import { bleedPage } from './bleed';
import { withMargins } from './margins';

const aspectSchema = z.enum(['trim', 'bleed', 'margins']);

const formatStep = z.object({
  ...stepBase,
  kind: z.literal('format'),
  pages: selectionSchema,
  /** Id of a format of the docket. */
  format: z.string().min(1).max(64),
  content: contentSchema,
  fixed: fixedPointSchema,
  only: z.array(aspectSchema).min(1).optional(),
});

/** Puts a format of the docket on pages: all that it sets, or only some aspects of it (which gives those back to a page that differs). */
export const format = defineStep(formatStep)({
  kind: 'format',
  on: 'pages',
  key: 'f',
  button: false,
  fresh: ({ chosen = 'all', formats }) => formatOn(formats[0]?.id ?? '-', chosen),
  apply(list, step, { formats }) {
    const known = formatOf(step.format, formats);
    return changePages(list, step.pages, (page, side) => putFormat(page, known, step, step.only, side));
  },
});

/** A step, but for its id, that puts a format on pages, their content held at the middle. */
export const formatOn = (id: string, pages: Selection): Omit<z.infer<typeof formatStep>, 'id'> => ({
  kind: 'format',
  pages,
  format: id,
  content: 'hold',
  fixed: CENTRE,
});

function formatOf(id: string, formats: readonly Format[]): Format {
  const known = formats.find((each) => each.id === id);
  if (!known) throw new StepProblem('no-such-format');
  return known;
}

/** New pages with the format that their step names, their content held at the middle; as they are where it names none. Throws StepProblem. */
export function formatted(
  pages: readonly Page[],
  id: string | undefined,
  formats: readonly Format[],
  book: Book,
): readonly Page[] {
  if (id === undefined) return pages;
  const known = formatOf(id, formats);
  const how: Resize = { content: 'hold', fixed: CENTRE };
  return pages.map((page) => putFormat(page, known, how, undefined, frontSide(book)));
}

function putFormat(
  page: Page,
  known: Format,
  how: Resize,
  only: readonly Aspect[] | undefined,
  side: Side,
): Page {
  const wanted = (aspect: Aspect) => !only || only.includes(aspect);
  let result = page;
  if (known.trim && wanted('trim')) result = resizePage(result, known.trim, how, side);
  if (known.bleed && wanted('bleed'))
    result = bleedPage(result, known.bleed, known.bleed.art ?? 'leave', side);
  if (known.margins && wanted('margins')) result = withMargins(result, known.margins, side);
  const own =
    only && page.format?.id === known.id ? page.format.own.filter((aspect) => !only.includes(aspect)) : [];
  return { ...result, format: { id: known.id, name: known.name, own } };
}
