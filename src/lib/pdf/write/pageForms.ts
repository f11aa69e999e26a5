import type { PDFRef } from '@cantoo/pdf-lib';
import { entryAt, entryOf } from '../../core/entries';
import type { Art } from '../../core/model/art';
import type { Page } from '../../core/model/page';
import type { Surveys } from '../../core/model/survey';
import type { ArtItem } from '../../core/model/surface';
import { artsOf, laidOn } from '../../core/pages/page';
import type { FormUse } from './kit';
import { contentAsForm } from './mirror';
import { artKey, ArtSet, bringPage } from './outputPages';
import { withOwnPatterns } from './patterns';
import { placesApart } from './places';
import type { OpenSources } from './sources';

/** Source pages that are pages more than once. */
export function comeAgain(shown: readonly Page[]): Art[] {
  const met = new ArtSet();
  return shown.flatMap(({ art }) => (art && !met.add(art) ? [art] : []));
}

/** Sources whose pages are drawn besides being pages: joined, laid on others, mirrored at their edges, or there more than once. */
export function drawnSources(shown: readonly Page[]): ReadonlySet<string> {
  const arts = shown.flatMap((page) => [
    ...laidOn(page),
    ...(page.more || page.mirrored ? artsOf(page) : []),
  ]);
  return new Set([...arts, ...comeAgain(shown)].map(({ source }) => source));
}

const fades = (opacity: number | undefined): boolean => opacity !== undefined && opacity < 1;
const formKey = ({ source, index }: Pick<Art, 'source' | 'index'>, group: boolean): string =>
  `${artKey({ source, index })}${group ? ' group' : ''}`;

/** A source page's content as a form, the name it goes by, and the page that it came from. */
export interface PlacedForm {
  name: string;
  form: PDFRef;
  page: PDFRef;
}

/** The content of every source page that is joined on another or laid on it. */
function formsOf(
  faces: readonly Page[],
  { byId, printed, context }: OpenSources,
  surveys: Surveys,
): Map<string, PlacedForm> {
  const forms = new Map<string, PlacedForm>();
  const add = ({ source, index }: Art, group: boolean) => {
    const key = formKey({ source, index }, group);
    if (forms.has(key)) return;
    const { ref, dict } = bringPage(printed.get(source) ?? entryOf(byId, source), index, context);
    const form = contentAsForm(dict, entryAt(surveys[source]!.pages, index), context, group);
    forms.set(key, { name: `P${forms.size + 1}`, page: ref, form });
  };
  for (const page of faces) {
    if (page.more) for (const art of artsOf(page)) add(art, false);
    for (const { arts, opacity } of page.laid ?? []) for (const art of arts) add(art, fades(opacity));
  }
  return forms;
}

/** The forms that are drawn on pages; those of pages with tiling patterns once more for each place where they are drawn. */
export class PageForms {
  private readonly forms: Map<string, PlacedForm>;
  private readonly apart = placesApart<string>();

  /** Made before any page gets its new size: forms show their source pages as they came. */
  constructor(
    shown: readonly Page[],
    private readonly sources: OpenSources,
    private readonly surveys: Surveys,
  ) {
    this.forms = formsOf(shown, sources, surveys);
  }

  get all(): PlacedForm[] {
    return [...this.forms.values()];
  }

  readonly use = ({ source, index, laid, matrix }: ArtItem): FormUse => {
    const key = formKey({ source, index }, fades(laid?.opacity));
    const place = this.apart(key, matrix);
    const { form, page, name } = entryOf(this.forms, key);
    const there = `${key} ${place}`;
    const own = !place || this.forms.has(there) ? undefined : withOwnPatterns(form, this.sources.context);
    if (own) this.forms.set(there, { name: `P${this.forms.size + 1}`, page, form: own });
    return {
      name: this.forms.get(there)?.name ?? name,
      toUpright: entryAt(this.surveys[source]?.pages ?? [], index).toUpright,
    };
  };
}
