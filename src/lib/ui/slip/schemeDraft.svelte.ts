import { untrack, type Component } from 'svelte';
import type { SheetPlan } from '../../core/sheets/plan';
import { schemeSchema, type PressScheme, type Scheme } from '../../core/sheets/schemes';
import { asSaved } from '../asSaved';
import type { Bench } from '../bench.svelte';

const said = (scheme: Scheme): string => asSaved(schemeSchema, scheme);

/** A scheme as its form has it so far; the bench shows it while it is typed, and accepting writes it. */
export class SchemeDraft<Of extends Scheme = Scheme> {
  value: Of;
  private wrong = $state<Record<string, boolean>>({});
  private seen: Of;

  constructor(
    private readonly bench: Bench,
    readonly stored: () => Of,
  ) {
    this.seen = untrack(stored);
    // What was typed before this stage was left is there again.
    const typed = untrack(() => bench.draft.scheme);
    this.value = $state.raw(typed?.kind === this.seen.kind ? (typed as Of) : this.seen);
    if (this.value !== this.seen) this.try();
  }

  get unit() {
    return this.bench.unit;
  }
  get bad(): boolean {
    return Object.values(this.wrong).some(Boolean);
  }
  get changed(): boolean {
    return said(this.value) !== said(this.stored());
  }

  /** The docket moved under the form: undo, redo, a mend. The same scheme back from being saved is no move. */
  follow(): void {
    const stored = this.stored();
    if (said(stored) === said(this.seen)) return;
    this.seen = stored;
    this.value = stored;
    this.wrong = {};
    this.bench.draft.scheme = undefined;
  }

  set(change: Partial<Of>): void {
    this.value = { ...this.value, ...change };
    this.bench.draft.scheme = this.changed ? this.value : undefined;
    this.try();
  }

  private try(): void {
    const { bench } = this;
    untrack(() => {
      bench.draft.trial = this.bad ? undefined : { ...bench.docket, scheme: this.value };
      bench.draft.typing = !this.bad;
    });
  }

  /** Takes what was typed in a field, or keeps in mind that it cannot be used. */
  take<T>(key: string, given: T | undefined, change: (given: T) => Partial<Of>): void {
    this.wrong = { ...this.wrong, [key]: given === undefined };
    if (given !== undefined) this.set(change(given));
    else this.bench.draft.trial = undefined;
  }

  accept(): void {
    if (this.changed && !this.bad) this.bench.put({ ...this.bench.docket, scheme: this.value });
  }

  leave(): void {
    this.value = this.stored();
    this.wrong = {};
    this.bench.leave();
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
