import { PDFArray, PDFDict, PDFName, PDFNumber, type PDFContext, type PDFRef } from '@cantoo/pdf-lib';
import type { Box } from '../../core/measure/box';
import { applyToBox, invert, type Matrix } from '../../core/measure/matrix';
import type { Item } from '../../core/model/surface';
import { addTo, toLibrary } from '../objects/libraryObjects';
import { boxNumbers, concat } from '../objects/numbers';
import { contentParts, CONTENTS } from './contents';
import type { Kit } from './kit';
import { nameForm } from './mirror';
import type { PlacedForm } from './pageForms';
import { Content } from './writePdf';

const RESOURCES = PDFName.of('Resources');
const FONT = PDFName.of('Font');

/** What is put on pages besides their own content, each time as a form, all with the same resources. */
export class Extras {
  private readonly resources: PDFRef;
  private shell: PDFRef | undefined;
  constructor(
    private readonly kit: Kit<PDFRef>,
    private readonly context: PDFContext,
  ) {
    this.resources = context.nextRef();
  }

  /** Draws items of a page behind and before its content; `toPage` leads from its user space to page space. */
  draw(dict: PDFDict, items: readonly Item[], toPage: Matrix): void {
    const isBehind = (item: Item) => item.kind === 'art' && !!item.laid?.behind;
    const behind = items.filter(isBehind);
    const before = behind.length ? items.filter((item) => !isBehind(item)) : items;
    if (!behind.length && !before.length) return;
    const { context } = this;
    // Whatever the page's content leaves changed must not reach what is drawn after it.
    this.shell ??= this.content('q\n');
    const own = contentParts(dict);
    const apart = own.length > 0 && before.length > 0;
    const parts = [
      this.part(dict, behind, toPage, ''),
      ...(apart ? [this.shell, ...own] : own),
      this.part(dict, before, toPage, apart ? '\nQ\n' : ''),
    ];
    const contents = PDFArray.withContext(context);
    for (const part of parts) if (part) contents.push(part);
    dict.set(CONTENTS, contents);
  }

  private content(operators: string): PDFRef {
    return this.context.register(new Content(operators));
  }

  /** Content that draws items, after what `first` says: as it is where they need fonts alone, which is quick, else as a form with resources of its own. */
  private part(dict: PDFDict, items: readonly Item[], toPage: Matrix, first: string): PDFRef | undefined {
    if (!items.length) return undefined;
    const { context } = this;
    const place = concat(invert(toPage));
    const fonts = this.kit.fontsOf(items);
    if (fonts && addFonts(dict, fonts, context))
      return this.content(`${first}q ${place}\n${this.kit.draw(items)}\nQ`);
    const box = boxNumbers(mediaOf(dict, toPage));
    const form = context.stream(this.kit.draw(items), {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: box,
      Resources: this.resources,
    });
    const name = nameForm(dict, context.register(form), context);
    return this.content(`${first}q ${place} /${name} Do Q`);
  }

  /** Writes what was needed; the layers that were made. */
  finish(forms: readonly PlacedForm[]): PDFRef[] {
    const { resources, layers } = this.kit.finish(addTo(this.context), (ref, dictionary) =>
      this.context.assign(ref, toLibrary(dictionary, this.context)),
    );
    const XObject = Object.fromEntries(forms.map(({ name, form }) => [name, form]));
    this.context.assign(this.resources, toLibrary({ ...resources, XObject }, this.context));
    return layers;
  }
}

/** Names that are asked for on every page, each read once. */
const READ_NAMES = new Map<string, PDFName>();
function nameOf(name: string): PDFName {
  const made = READ_NAMES.get(name) ?? PDFName.of(name);
  READ_NAMES.set(name, made);
  return made;
}

/** Gives a page's resources fonts more, which do no harm where others share them; false if a name is taken. */
function addFonts(dict: PDFDict, fonts: ReadonlyMap<string, PDFRef>, context: PDFContext): boolean {
  const resources = dict.lookup(RESOURCES);
  if (!(resources instanceof PDFDict)) return false;
  const known = resources.lookup(FONT);
  const own = known instanceof PDFDict ? known : PDFDict.withContext(context);
  const names = [...fonts].map(([name, ref]) => [nameOf(name), ref] as const);
  if (names.some(([name, ref]) => own.has(name) && own.get(name) !== ref)) return false;
  if (own !== known) resources.set(FONT, own);
  for (const [name, ref] of names) own.set(name, ref);
  return true;
}

/** The MediaBox that a page was given, in page space. */
function mediaOf(dict: PDFDict, toPage: Matrix): Box {
  const box = dict.lookup(PDFName.of('MediaBox'), PDFArray);
  const at = (n: number) => box.lookup(n, PDFNumber).asNumber();
  return applyToBox(toPage, { x0: at(0), y0: at(1), x1: at(2), y1: at(3) });
}
