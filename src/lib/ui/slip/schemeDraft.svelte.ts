import { untrack, type Component } from 'svelte';
import type { SheetPlan } from '../../core/sheets/plan';
import { schemeSchema, type PressScheme, type Scheme } from '../../core/sheets/schemes';
import { asSaved } from '../asSaved';
import type { Bench } from '../bench.svelte';
import { isTyped } from '../isTyped';

const said = (scheme: Scheme): string => asSaved(schemeSchema, scheme);
/** Text is being typed in a field: what it says so far is shown, and put in place when it is left. */
const isTyping = (): boolean => {
  const field = isTyped(document.activeElement);
  return !!field && !(field instanceof HTMLSelectElement);
};

/**
 * A scheme in its form. What is chosen is put in place at once; what is typed is shown while it is typed, and put in
 * place when its field is left or Enter is pressed. Undo takes either back.
 */
export class SchemeDraft<Of extends Scheme = Scheme> {
  private seen: Of;

  constructor(
    private readonly bench: Bench,
    readonly stored: () => Of,
  ) {
    this.seen = untrack(stored);
  }

  private get draft() {
    return this.bench.drafts.sheets;
  }
  get unit() {
    return this.bench.unit;
  }
  /** As it is stored, with what is being typed. */
  get value(): Of {
    const [typed, stored] = [this.draft.scheme, this.stored()];
    return typed?.kind === stored.kind ? (typed as Of) : stored;
  }

  /** The docket moved under the form: undo, redo, a mend. The same scheme back from being saved is no move. */
  follow(): void {
    const stored = this.stored();
    if (said(stored) === said(this.seen)) return;
    this.seen = stored;
    this.drop();
  }

  set(change: Partial<Of>): void {
    untrack(() => {
      this.draft.scheme = { ...this.value, ...change };
      this.draft.trial = { ...this.bench.docket, scheme: this.draft.scheme };
      this.draft.typing = true;
    });
    if (!isTyping()) this.accept();
  }

  /** Takes what was typed in a field; what cannot be used leaves the scheme as it is stored. */
  take<T>(given: T | undefined, change: (given: T) => Partial<Of>): void {
    if (given === undefined) this.drop();
    else this.set(change(given));
  }

  /** Puts what was typed in place. */
  accept(): void {
    if (!this.draft.scheme) return;
    const { value } = this;
    const moved = said(value) !== said(this.stored());
    this.drop();
    if (moved) this.bench.putBeside({ ...this.bench.docket, scheme: value });
  }

  private drop(): void {
    const { draft } = this;
    if (!untrack(() => draft.scheme)) return;
    draft.scheme = draft.trial = undefined;
    draft.typing = false;
  }
}

export type PressDraft = SchemeDraft<PressScheme>;

/** What the fields of every kind of scheme are given. */
export interface SchemeFieldsProps<Kind extends Scheme['kind']> {
  bench: Bench;
  draft: SchemeDraft<Extract<Scheme, { kind: Kind }>>;
  plan: SheetPlan | undefined;
}
export type SchemeFields<Kind extends Scheme['kind']> = Component<SchemeFieldsProps<Kind>>;
