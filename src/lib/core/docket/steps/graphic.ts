import * as z from 'zod';
import { offset } from '../../measure/lengthSchema';
import type { Laid } from '../../model/laid';
import { applyToBox, compose, invert, translate } from '../../measure/matrix';
import { hasArea, heightOf, intersect, sizeBox, widthOf, type Box } from '../../measure/box';
import { artsOf, faceAt, facesOf, mapFaces } from '../../pages/page';
import type { Art } from '../../model/art';
import type { Page, PageList } from '../../model/page';
import { resolveSelection } from '../../select/selection';
import { selectionSchema, type Selection } from '../../model/selection';
import type { Surveys } from '../../model/survey';
import { StepProblem } from '../stepKind';
import { pagesOnly } from './base';
import { sourceSchema, toPage } from './takeIn';
import { firstOf } from '../../entries';

const areaSchema = z.object({ x0: offset, y0: offset, x1: offset, y1: offset });

/** A page of a file that is no page of the job, or an area of it in page space. */
export const graphicFileSchema = z.object({
  source: sourceSchema,
  name: z.string().min(1).max(400),
  index: z.number().int().min(0),
  area: areaSchema.optional(),
});
export type GraphicFile = z.infer<typeof graphicFileSchema>;
/** What is laid on pages: a page of the job, or an area of it in page space; or a page of a file. */
export const graphicSchema = z.union([
  z.object({
    page: selectionSchema,
    area: areaSchema.optional(),
  }),
  graphicFileSchema,
]);
export type Graphic = z.infer<typeof graphicSchema>;

/** The file that a graphic is a page of; none if it is a page of the job. */
export const fileOf = (graphic: Graphic): { source: string; name: string }[] =>
  'source' in graphic ? [{ source: graphic.source, name: graphic.name }] : [];

/**
 * An object on a page of the job as the area of a page of the file that it came in, so that it can be laid on pages of
 * other jobs; with how much larger it is there. `nameOf` gives the name of a file. Undefined where more lies on that
 * page than one page of a file, or that lies turned. Throws SelectionError.
 */
export function inItsFile(
  from: Graphic,
  list: PageList,
  surveys: Surveys,
  nameOf: (source: string) => string | undefined,
): { graphic: GraphicFile; scale: number } | undefined {
  if ('source' in from) return { graphic: from, scale: 1 };
  const [index, ...others] = resolveSelection(from.page, list);
  const page = index === undefined ? undefined : faceAt(list, index);
  const { art } = page ?? {};
  const supplied = art && surveys[art.source]?.pages[art.index];
  const name = art && nameOf(art.source);
  if (!page || !art || !supplied || !name || others.length || artsOf(page).length !== 1) return undefined;
  const plain = toPage(supplied, art.source, art.index, 0, 1).art!;
  const toFile = compose(invert(art.place), plain.place);
  if (toFile[0] <= 0 || toFile[3] <= 0 || toFile[1] || toFile[2]) return undefined;
  const area = applyToBox(toFile, from.area ?? sizeBox(page.trim));
  return { graphic: { source: art.source, name, index: art.index, area }, scale: toFile[0] };
}

/** The graphic of a step, and the id of the page of the job that it is where it is one. Throws StepProblem, SelectionError. */
export function graphicOf(
  from: Graphic,
  list: PageList,
  surveys: Surveys,
): Pick<Laid, 'arts' | 'size'> & { page?: string } {
  if ('source' in from) {
    const survey = surveys[from.source];
    if (!survey) throw new StepProblem('source-missing', { name: from.name });
    const page = survey.pages[from.index];
    if (!page) throw new StepProblem('source-page-missing', { page: from.index + 1, name: from.name });
    return shown(toPage(page, from.source, from.index, 0, 1), from.area);
  }
  const selected = resolveSelection(from.page, list);
  if (selected.length > 1) throw new StepProblem('one-graphic', { count: selected.length });
  const page = faceAt(list, firstOf(selected))!;
  if (!page.art) throw new StepProblem('nothing-on-page', { position: firstOf(selected) + 1 });
  return { ...shown(page, from.area), page: page.id };
}

/** All that a page shows, or an area of it with that area's corner as the origin. */
function shown(page: Page, area?: Box): Pick<Laid, 'arts' | 'size'> {
  if (!area) return { arts: artsOf(page), size: page.trim };
  const within = intersect(area, sizeBox(page.trim));
  if (!hasArea(within)) throw new StepProblem('area-empty');
  const arts = artsOf(page).map((art): Art => ({
    ...art,
    place: compose(art.place, translate(-within.x0, -within.y0)),
    reach: intersect(art.reach, applyToBox(invert(art.place), within)),
  }));
  return { arts, size: { width: widthOf(within), height: heightOf(within) } };
}

/**
 * The list with something laid on the pages selected. The page that the graphic is stays without it and, with `takeOut`,
 * leaves the list; a panel stays on its leaf. Throws StepProblem, SelectionError.
 */
export function layOn(
  list: PageList,
  pages: Selection,
  laid: Laid,
  own: { page?: string | undefined; takeOut?: boolean | undefined },
): PageList {
  const wanted = new Set(resolveSelection(pages, list).map((index) => faceAt(list, index)!.id));
  if (own.page) wanted.delete(own.page);
  if (!wanted.size) throw new StepProblem('nothing-under');
  const over = mapFaces(list, (page) =>
    wanted.has(page.id) ? { ...page, laid: [...(page.laid ?? []), laid] } : page,
  );
  if (!own.page || !own.takeOut) return over;
  pagesOnly([facesOf(list).findIndex(({ id }) => id === own.page)], list);
  return { ...over, pages: over.pages.filter(({ id }) => id !== own.page) };
}
