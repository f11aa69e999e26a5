import type { Selection } from '../model/selection';
import { sameSize, sizeByName } from '../paper/sizes';
import { labelsOf } from '../numbers/labels';
import { leafOf } from '../pages/leaves';
import { stretchesOf } from '../numbers/series';
import { facesOf, sideOf } from '../pages/page';
import type { PageList } from '../model/page';
import { addressesOf, panelsOf, withoutFace, type Panel } from '../pages/panels';
import { entryAt } from '../entries';

export type SelectionErrorCode =
  | 'empty'
  | 'unexpected'
  | 'no-such-page'
  | 'backwards'
  | 'no-such-label'
  | 'no-such-size'
  | 'no-such-format'
  | 'no-such-piece'
  | 'no-such-series'
  | 'no-such-panel'
  | 'pages-gone'
  | 'none-match';

/** Why a selection does not resolve: `at` is the index in the typed text, `seen` the words it stumbled on. */
export class SelectionError extends Error {
  constructor(
    readonly code: SelectionErrorCode,
    readonly text: string,
    readonly at: number,
    readonly seen: string,
    readonly pageCount: number,
  ) {
    super(`${code} at ${at} in "${text}"`);
  }
}

/**
 * The indexes (of `facesOf`: from 0, ascending, each once) that a selection picks from a list. Faces of panels come after all pages.
 *
 * Grammar: `term (',' term)* ('not' term (',' term)*)?` where a term is a position `3`, a range `5-9`, `12-`, `last`,
 * `last-1`, `all`, `odd`, `even` (by position), `left`, `right`, `upper`, `lower` (by side of the leaf), `blank`, a label `"iv"` or
 * labels `"iv"-"xii"`, a size `size:A5`, a format `format:body`, a piece `piece:slip` or a number series `series:body` by name, all
 * `panels`, or one of a leaf `5+1`, `5+1 front`, `5+1 back`. Positions, `all`, `odd` and the like pick pages only. Ids that have gone are left out as long as one remains.
 * Throws SelectionError.
 */
export function resolveSelection(selection: Selection, list: PageList): number[] {
  if (typeof selection === 'string') return new Reader(selection, list).read();
  const wanted = new Set(selection.ids);
  const found = facesOf(list).flatMap((page, index) => (wanted.has(page.id) ? [index] : []));
  if (!found.length)
    throw new SelectionError('pages-gone', '', 0, selection.ids.join(', '), list.pages.length);
  return found;
}

/** What a selection picks; nothing if it cannot be resolved, which whoever shows it says at its field. */
export function pickedOf(selection: Selection, list: PageList): number[] {
  try {
    return resolveSelection(selection, list);
  } catch (error) {
    if (error instanceof SelectionError) return [];
    throw error;
  }
}

/** The shortest typed form of the indexes (from 0): `1, 3-5`; of a list with panels, their addresses too: `1, 3-5, 5+1 front`. */
export function describeIndexes(indexes: readonly number[], list?: PageList): string {
  const count = list?.pages.length ?? Infinity;
  const sorted = [...new Set(indexes)].sort((a, b) => a - b);
  const runs: string[] = [];
  for (let start = 0; start < sorted.length && entryAt(sorted, start) < count;) {
    let end = start;
    while (sorted[end + 1] === entryAt(sorted, end) + 1 && entryAt(sorted, end + 1) < count) end++;
    const [from, to] = [entryAt(sorted, start) + 1, entryAt(sorted, end) + 1];
    runs.push(from === to ? `${from}` : to === from + 1 ? `${from}, ${to}` : `${from}-${to}`);
    start = end + 1;
  }
  return [
    ...runs,
    ...describePanels(
      sorted.filter((index) => index >= count),
      list,
    ),
  ].join(', ');
}

function describePanels(indexes: readonly number[], list: PageList | undefined): string[] {
  if (!list?.panels || !indexes.length) return [];
  if (indexes.length === list.panels.length) return ['panels'];
  const addresses = addressesOf(list);
  const said = indexes.map(
    (index) => addresses.get(entryAt(list.panels!, index - list.pages.length).id) ?? '',
  );
  // Both faces of a panel go by its address alone.
  const both = new Set(
    said
      .filter((one) => one.endsWith(' front') && said.includes(one.replace(/front$/, 'back')))
      .map((one) => withoutFace(one)),
  );
  return [...both, ...said.filter((one) => !both.has(withoutFace(one)))];
}

class Reader {
  private at = 0;
  private readonly text: string;
  private readonly count: number;
  constructor(
    text: string,
    private readonly list: PageList,
  ) {
    this.text = text.replace(/[–—−]/g, '-').replace(/[“”]/g, '"');
    this.count = list.pages.length;
  }

  read(): number[] {
    const selected = new Set<number>();
    let away = false;
    this.space();
    if (this.at === this.text.length) throw this.error('empty', 0);
    if (/^not\b/i.test(this.rest())) this.everything().forEach((i) => selected.add(i));
    while (this.at < this.text.length) {
      if (this.word(/^not\b/i)) away = true;
      for (const index of this.term()) {
        if (away) selected.delete(index);
        else selected.add(index);
      }
      this.space();
      const more = this.word(/^,/);
      this.space();
      if (this.at === this.text.length) break;
      if (!more && !/^not\b/i.test(this.rest())) throw this.error('unexpected', this.at);
    }
    if (!selected.size) throw this.error('none-match', 0);
    return [...selected].sort((a, b) => a - b);
  }

  private term(): number[] {
    this.space();
    const start = this.at;
    const { pages, book } = this.list;
    const where = (test: (index: number) => boolean) => this.everything().filter(test);
    if (this.word(/^all\b/i)) return this.everything();
    if (this.word(/^odd\b/i)) return where((i) => i % 2 === 0);
    if (this.word(/^even\b/i)) return where((i) => i % 2 === 1);
    if (this.word(/^panels\b/i)) return this.panels(() => true);
    const side = this.word(/^(left|right|upper|lower)\b/i)?.toLowerCase();
    if (side) return where((i) => sideOf(i, book) === side);
    if (this.word(/^blank\b/i)) return where((i) => !entryAt(pages, i).art);
    const named = this.namedTerm();
    if (named) return this.named(named, start);
    const panel = this.word(/^\d+\s*\+\s*\d+(\s*(front|back)\b)?/i);
    if (panel) return this.panel(panel, start);
    const from = this.point();
    if (from === undefined) throw this.error('unexpected', start);
    this.space();
    if (!this.word(/^-/)) return [from];
    this.space();
    const next = this.at;
    const to =
      this.at === this.text.length || /^(,|not\b)/i.test(this.rest()) ? this.count - 1 : this.point();
    if (to === undefined) throw this.error('unexpected', next);
    if (to < from) throw this.error('backwards', start);
    return where((i) => i >= from && i <= to);
  }

  /** One page: a position, `last`, `last-1`, or a label in quotes. */
  private point(): number | undefined {
    const start = this.at;
    const label = this.word(/^"[^"]*"/);
    if (label !== undefined) {
      const index = labelsOf(this.list).indexOf(label.slice(1, -1));
      if (index < 0) throw this.error('no-such-label', start, label);
      return index;
    }
    const last = this.word(/^last(\s*-\s*\d+)?\b/i);
    const digits = last === undefined ? this.word(/^\d+/) : undefined;
    if (last === undefined && digits === undefined) return undefined;
    const position = last === undefined ? Number(digits) : this.count - Number(/\d+/.exec(last)?.[0] ?? 0);
    if (position < 1 || position > this.count) throw this.error('no-such-page', start, (last ?? digits)!);
    return position - 1;
  }

  private panels(test: (panel: Panel, face: 'front' | 'back') => boolean): number[] {
    const wanted = new Set(
      panelsOf(this.list).flatMap((panel) =>
        (['front', 'back'] as const).filter((face) => test(panel, face)).map((face) => panel[face].id),
      ),
    );
    return (this.list.panels ?? []).flatMap(({ id }, n) => (wanted.has(id) ? [this.count + n] : []));
  }

  /** A panel by its leaf and its number on it. */
  private panel(words: string, start: number): number[] {
    const [, on, nth, face] = /^(\d+)\s*\+\s*(\d+)\s*(\w*)$/.exec(words)!;
    const { book } = this.list;
    const leaf = leafOf(Number(on) - 1, book).leaf;
    const found = this.panels(
      (panel, which) =>
        panel.leaf === leaf && panel.nth === Number(nth) && (!face || which === face.toLowerCase()),
    );
    if (!found.length) throw this.error('no-such-panel', start, words);
    return found;
  }

  /** `size:A5` and the like, up to a comma, a `not` or the end. One look over the text, however long it is. */
  private namedTerm(): string | undefined {
    const head = /^(?:size|format|piece|series):\s*/i.exec(this.rest())?.[0];
    if (head === undefined) return undefined;
    const [all] = this.rest().slice(head.length).split(',', 1) as [string];
    const not = all.slice(1).search(/\bnot\b/i);
    const name = (not < 0 ? all : all.slice(0, not + 1)).trimEnd();
    if (!name) return undefined;
    this.at += head.length + name.length;
    return head + name;
  }

  /** Pages by the name of their size, format, piece or number series, capitals not counted. */
  private named(words: string, start: number): number[] {
    const [, said, name] = /^(\w+):\s*(.*)$/s.exec(words)!;
    const kind = said!.toLowerCase() as 'size' | 'format' | 'piece' | 'series';
    if (kind === 'size') return this.ofSize(name!, start);
    const wanted = name!.trim().toLowerCase();
    const found =
      kind === 'series'
        ? stretchesOf(this.list).flatMap(({ series, from, to }) =>
            series?.name?.toLowerCase() === wanted ? this.everything().slice(from, to) : [],
          )
        : this.everything().filter((i) => entryAt(this.list.pages, i)[kind]?.name.toLowerCase() === wanted);
    if (!found.length) throw this.error(`no-such-${kind}`, start, name);
    return found;
  }

  private ofSize(name: string, start: number): number[] {
    const size = sizeByName(name);
    if (!size) throw this.error('no-such-size', start, name);
    const lying = { width: size.height, height: size.width };
    return this.everything().filter(
      (i) =>
        sameSize(entryAt(this.list.pages, i).trim, size) || sameSize(entryAt(this.list.pages, i).trim, lying),
    );
  }

  private everything(): number[] {
    return this.list.pages.map((_, index) => index);
  }

  private rest(): string {
    return this.text.slice(this.at);
  }

  private word(pattern: RegExp): string | undefined {
    this.space();
    const match = pattern.exec(this.rest());
    if (!match) return undefined;
    this.at += match[0].length;
    return match[0];
  }

  private space(): void {
    while (/\s/.test(this.text[this.at] ?? '')) this.at++;
  }

  private error(code: SelectionErrorCode, at: number, seen = this.text.slice(at, at + 12)): SelectionError {
    return new SelectionError(code, this.text, at, seen, this.count);
  }
}
