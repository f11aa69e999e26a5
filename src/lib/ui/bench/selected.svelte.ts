import type { PageList } from '../../core/model/page';
import type { Selection } from '../../core/model/selection';
import { faceAt, facesOf } from '../../core/pages/page';
import { describeIndexes, pickedOf, resolveSelection, SelectionError } from '../../core/select/selection';
import { saySelectionError } from '../../words/selections';

/** Which pages are selected: pointed at, or typed. */
export class Selected {
  ids = $state.raw<ReadonlySet<string>>(new Set());
  /** As it stands in the field at the bench's foot. */
  text = $state('');
  /** Why the text cannot be read. */
  error = $state('');
  /** Where the selected pages are among the faces of the list, from 0. */
  readonly indexes: number[] = $derived.by(() =>
    facesOf(this.list()).flatMap((page, index) => (this.ids.has(page.id) ? [index] : [])),
  );

  constructor(
    /** The pages that the bench shows. */
    private readonly list: () => PageList,
    /** Told the first page that was typed, so that it is brought into sight. */
    private readonly onTyped: (first: number | undefined) => void = () => undefined,
  ) {}

  choose(ids: Iterable<string>): void {
    this.ids = new Set(ids);
    this.text = describeIndexes(this.indexes, this.list());
    this.error = '';
  }

  /** Selects one page; with Ctrl it joins the others, or leaves them. */
  chooseOne(id: string, { ctrlKey, metaKey }: { ctrlKey: boolean; metaKey: boolean }): void {
    const next = new Set(ctrlKey || metaKey ? this.ids : []);
    if (!next.delete(id)) next.add(id);
    this.choose(next);
  }

  /** Selects by typed text; false, with the reason in `error`, when it cannot be read. */
  type(text: string): boolean {
    this.text = text;
    this.error = '';
    if (!text.trim()) {
      this.ids = new Set();
      return true;
    }
    try {
      const indexes = resolveSelection(text, this.list());
      this.ids = new Set(indexes.map((index) => faceAt(this.list(), index)!.id));
      this.onTyped(indexes[0]);
      return true;
    } catch (error) {
      if (!(error instanceof SelectionError)) throw error;
      this.error = saySelectionError(error);
      return false;
    }
  }

  /** The selected pages as a step keeps them: as typed where text was typed, else those very pages; undefined if there are none. */
  get selection(): Selection | undefined {
    if (!this.ids.size) return undefined;
    const typed = this.text.trim();
    if (typed && !this.error && typed !== describeIndexes(this.indexes, this.list())) return typed;
    return { ids: [...this.ids] };
  }

  /** The list has changed: pages that are gone are selected no more. */
  dropGone(): void {
    const there = new Set(facesOf(this.list()).map(({ id }) => id));
    this.ids = new Set([...this.ids].filter((id) => there.has(id)));
    this.updateText();
  }

  /** What was typed stays as long as it still means the pages selected. */
  updateText(): void {
    if (this.error) return;
    const means = this.text.trim() ? pickedOf(this.text, this.list()) : [];
    if (means.join() !== this.indexes.join()) this.text = describeIndexes(this.indexes, this.list());
  }
}
