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
  import WhichSheet from './WhichSheet.svelte';
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

  function accept(event: SubmitEvent): void {
    event.preventDefault();
    draft.accept();
  }
</script>

<form onsubmit={accept}>
  {#if isPressed}<HandFields {bench} draft={press} {plan} />{/if}
  <Fields {bench} draft={draft as unknown as SchemeDraft} {plan} />
  {#if isPressed}
    <SheetFields draft={press} {plan} />
    <WhichSheet {bench} draft={press} />
  {/if}
  <MarkFields {draft} />
  {#if draft.changed || draft.bad}
    <div class="btns">
      <button class="btn" disabled={draft.bad}>Apply</button>
      <button class="btn q" type="button" onclick={() => draft.leave()}>Cancel</button>
    </div>
  {/if}
  {#if plan && schemeKind(kind).makes === 'cut'}<CutList {plan} unit={bench.unit} />{/if}
  {#if plan && isPressed}<SheetWorking {bench} {plan} scheme={draft.value as PressScheme} />{/if}
</form>

<style>
  /* What stands below the form scrolls beneath its buttons, down to the edge of the slip. */
  .btns {
    bottom: -14px;
    margin: 0 -16px;
    padding: 10px 16px 14px;
    z-index: 1;
  }
</style>
