import { entryAt } from '../../core/entries';
import { isSameBox, type Box } from '../../core/measure/box';
import { applyToBox, invert, isSameMatrix, type Matrix } from '../../core/measure/matrix';
import { remembering } from '../../core/remembering';
import type { Surveys } from '../../core/model/survey';
import type { ArtItem } from '../../core/model/surface';
import type { ByteOutput, ObjectTable } from '../objects/byteOutput';
import { boxNumbers } from '../objects/numbers';
import type { FormUse } from './kit';
import { placesApart } from './places';
import type { RawSources } from './rawSources';

/** The numbers of the forms that were made of a source's pages, by their index: plain ones, and those that fade as a group. */
interface Made {
  plain: number[];
  group: number[];
}

/** What a page's MediaBox is in its own user space, as PDF writes it. Most pages are as large as the one before them. */
const mediaOf = remembering<{ toUpright: Matrix; media: Box }, string>(
  (one, other) => isSameMatrix(one.toUpright, other.toUpright) && isSameBox(one.media, other.media),
  ({ toUpright, media }) => boxNumbers(applyToBox(invert(toUpright), media)).join(' '),
);

/** The source pages on sheets as Form XObjects (ISO 32000-1, 8.10), each written once, when it is first drawn. */
export class SheetForms {
  private readonly made = new Map<string, Made>();
  /** The forms of pages with tiling patterns that are drawn elsewhere too, by their places. */
  private readonly elsewhere = new Map<string, number>();
  private readonly apart = placesApart<number>();
  private entries: string[] = [];

  constructor(
    private readonly sources: RawSources,
    private readonly surveys: Surveys,
    private readonly out: ByteOutput,
    private readonly table: ObjectTable,
  ) {}

  /** Begins a side, whose forms have names of their own. */
  begin(): void {
    this.entries = [];
  }

  /** The entries of the side's XObject resources. */
  get shown(): string {
    return this.entries.join(' ');
  }

  /** The form that draws an item, and the name that it has on this side. */
  use({ source, index, laid, matrix }: ArtItem): FormUse {
    const isGroup = laid?.opacity !== undefined;
    const made = this.made.get(source) ?? { plain: [], group: [] };
    this.made.set(source, made);
    const those = isGroup ? made.group : made.plain;
    const form = (those[index] ??= this.write(source, index, isGroup));
    const drawn = this.atItsPlace(form, { source, index, matrix }, isGroup);
    const name = `P${this.entries.length + 1}`;
    this.entries.push(`/${name} ${drawn} 0 R`);
    return { name, toUpright: this.pageOf(source, index).toUpright };
  }

  /** The form itself, or where it has tiling patterns and was drawn elsewhere before, one more with patterns of its own. */
  private atItsPlace(
    form: number,
    { source, index, matrix }: Pick<ArtItem, 'source' | 'index' | 'matrix'>,
    isGroup: boolean,
  ): number {
    const place = this.apart(form, matrix);
    if (!place || !this.sources.hasPatterns(source, index)) return form;
    const key = `${form} ${place}`;
    const own = this.elsewhere.get(key) ?? this.write(source, index, isGroup, true);
    this.elsewhere.set(key, own);
    return own;
  }

  private write(source: string, index: number, isGroup: boolean, ownPatterns = false): number {
    const { toUpright, boxes } = this.pageOf(source, index);
    const bbox = mediaOf({ toUpright, media: boxes.media });
    return this.sources.writeForm(source, index, bbox, this.out, this.table, isGroup, ownPatterns);
  }

  private pageOf(source: string, index: number) {
    return entryAt(this.surveys[source]?.pages ?? [], index);
  }
}
