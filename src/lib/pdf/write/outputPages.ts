import { PDFDict, PDFName, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import { entryAt, entryOf } from '../../core/entries';
import type { Art } from '../../core/model/art';
import type { OpenSource, OpenSources } from './sources';

/** A page of a source, by name. */
export const artKey = ({ source, index }: Pick<Art, 'source' | 'index'>): string => `${source}:${index}`;

/** Pages of sources. */
export class ArtSet {
  private readonly bySource = new Map<string, Set<number>>();

  constructor(arts: readonly Pick<Art, 'source' | 'index'>[] = []) {
    for (const art of arts) this.add(art);
  }

  /** Whether it was not there yet. */
  add({ source, index }: Pick<Art, 'source' | 'index'>): boolean {
    const known = this.bySource.get(source) ?? new Set();
    this.bySource.set(source, known);
    const { size } = known;
    return known.add(index).size > size;
  }

  has(source: string, index: number): boolean {
    return this.bySource.get(source)?.has(index) ?? false;
  }
}

/** A page of the output: what others refer to it by, and what it is. */
export interface OutputPage {
  ref: PDFRef;
  dict: PDFDict;
}

/** The page in the output, with all it inherited made its own. */
export function bringPage(
  source: OpenSource,
  index: number,
  context: PDFContext,
): { ref: PDFRef; dict: PDFDict } {
  const page = entryAt(source.pages, index);
  for (const [key, value] of Object.entries(page.inherited))
    if (value && !page.dict.has(PDFName.of(key))) page.dict.set(PDFName.of(key), value);
  const ref = source.bring(page.ref);
  return { ref, dict: context.lookup(ref, PDFDict) };
}

export function newPage(context: PDFContext): { ref: PDFRef; dict: PDFDict } {
  const dict = context.obj({ Type: 'Page', Resources: {} });
  return { ref: context.register(dict), dict };
}

/** Source pages as pages of the output. One that comes again is a copy without annotations, but for those that print, as content. */
export class OutputPages {
  /** Pages that came already and come again, as they were before anything was done to them. */
  private readonly placed = new Map<string, PDFDict>();

  constructor(
    private readonly sources: OpenSources,
    private readonly again: ArtSet,
  ) {}

  of(art: Art): OutputPage {
    const { source, index } = art;
    const { byId, printed, context } = this.sources;
    if (!this.again.has(source, index)) return bringPage(entryOf(byId, source), index, context);
    const key = artKey(art);
    const before = this.placed.get(key);
    if (!before) {
      const brought = bringPage(entryOf(byId, source), index, context);
      this.placed.set(key, brought.dict.clone(context));
      return brought;
    }
    const flat = printed.get(source);
    const copy = (flat ? bringPage(flat, index, context).dict : before).clone(context);
    for (const entry of ['Annots', 'StructParents', 'B']) copy.delete(PDFName.of(entry));
    return { ref: context.register(copy), dict: copy };
  }
}
