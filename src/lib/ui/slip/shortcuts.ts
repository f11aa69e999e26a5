import { t } from '../../words/language';
import { anotherSize, evenSizes } from '../../core/docket/likely';
import type { Step } from '../../core/docket/steps';
import type { Bench } from '../bench.svelte';
import { newStepId } from '../newStepId';

/** A step that begins with more than its kind says, by a key and a button of its own. */
interface Shortcut {
  key: string;
  word(bench: Bench): string;
  /** What the list of keys says. */
  does(): string;
  /** The button is there only while it says which pages. */
  shown(bench: Bench): boolean;
  step(bench: Bench): Step | undefined;
}

/** Shortcuts of the stage Pages. */
export const SHORTCUTS: readonly Shortcut[] = [
  {
    key: 'a',
    word: () => t`Another size of this`,
    does: () => t`another size of this page`,
    shown: (bench) => bench.selected.indexes.length === 1,
    step(bench) {
      const page = bench.base.list.pages[bench.selected.indexes[0] ?? 0];
      return page && { ...anotherSize(page), id: newStepId() };
    },
  },
  {
    key: 'o',
    word: (bench) =>
      bench.selected.indexes.length === 1 ? t`Make all one size, like this` : t`Make all one size`,
    does: () => t`make all one size`,
    shown: (bench) => !!evenSizes(bench.beginning()),
    step(bench) {
      const even = evenSizes(bench.beginning());
      return even && { ...even, id: newStepId() };
    },
  },
];
