<script lang="ts">
  import { untrack } from 'svelte';
  import { schemeKind, type PressScheme, type Scheme } from '../../core/sheets/schemes';
  import type { Bench } from '../bench.svelte';
  import CutList from './CutList.svelte';
  import HandFields from './HandFields.svelte';
  import MarkFields from './MarkFields.svelte';
  import SheetFields from './SheetFields.svelte';
  import SheetWorking from './SheetWorking.svelte';
  import { schemeFields } from './schemes';
  import { SchemeDraft, type PressDraft } from './schemeDraft.svelte';

  type Marked = Exclude<Scheme, { kind: 'none' }>;
  let { bench, scheme }: { bench: Bench; scheme: Marked } = $props();
  // A form is for one kind of scheme: another kind makes another form.
  const draft = untrack(() => new SchemeDraft<Marked>(bench, () => scheme));
  $effect.pre(() => draft.follow());
  const kind = $derived(draft.value.kind);
  const Fields = $derived(schemeFields(kind));
  /** Its sheets go through a press. */
  const isPressed = $derived('stock' in draft.value);
  const plan = $derived(bench.shown.plan);
  const press = draft as unknown as PressDraft;

  function accept(event: Event): void {
    event.preventDefault();
    draft.accept();
  }
  // A field that is gone with its stage was left, too.
  $effect(() => () => draft.accept());
</script>

<!-- What is chosen is in place at once, what is typed when its field is left: there is nothing to apply. -->
<form onsubmit={accept} onfocusout={accept}>
  {#if isPressed}<HandFields {bench} {plan} />{/if}
  <Fields {bench} draft={draft as unknown as SchemeDraft} {plan} />
  {#if isPressed}<SheetFields {bench} draft={press} {plan} />{/if}
  <MarkFields {draft} />
  {#if plan && schemeKind(kind).makes === 'cut'}<CutList {plan} unit={bench.unit} />{/if}
  {#if plan && isPressed}<div class="sums"><SheetWorking {bench} {plan} scheme={draft.value as PressScheme} /></div>{/if}
</form>

<style>
  /* The sums stay in sight: the form scrolls beneath them, down to the edge of the slip. */
  .sums {
    position: sticky;
    bottom: -14px;
    z-index: 1;
    max-height: 60vh;
    overflow: auto;
    margin: 0 -16px -14px;
    padding: 8px 16px 10px;
    background: var(--card);
    border-top: 1px solid var(--rule);
  }
</style>
