<script lang="ts">
  import { untrack } from 'svelte';
  import type { Flat, Leaflet, PressScheme, Scheme, Signatures, Stitched } from '../../core/sheets/scheme';
  import type { Bench } from '../bench.svelte';
  import CoverFields from './CoverFields.svelte';
  import CutList from './CutList.svelte';
  import FlatFields from './FlatFields.svelte';
  import HandFields from './HandFields.svelte';
  import LeafletFields from './LeafletFields.svelte';
  import MarkFields from './MarkFields.svelte';
  import SheetFields from './SheetFields.svelte';
  import SheetWorking from './SheetWorking.svelte';
  import SignatureFields from './SignatureFields.svelte';
  import WhichSheet from './WhichSheet.svelte';
  import { SchemeDraft, type PressDraft } from './schemeDraft.svelte';

  type Marked = Exclude<Scheme, { kind: 'none' }>;
  let { bench, scheme }: { bench: Bench; scheme: Marked } = $props();
  // A form is for one kind of scheme: another kind makes another form.
  const draft = untrack(() => new SchemeDraft<Marked>(bench, () => scheme));
  $effect.pre(() => draft.follow());
  const kind = $derived(draft.value.kind);
  const plan = $derived(bench.shown.plan);
  const press = draft as unknown as PressDraft;

  function accept(event: SubmitEvent): void {
    event.preventDefault();
    draft.accept();
  }
</script>

<form onsubmit={accept}>
  {#if kind !== 'spreads' && kind !== 'single'}<HandFields {bench} draft={press} {plan} />{/if}
  {#if kind === 'stitched' || kind === 'signatures'}
    <SignatureFields
      draft={draft as unknown as SchemeDraft<Stitched | Signatures>}
      {plan}
      safe={bench.docket.safe}
      panels={!!bench.shown.list.panels?.length && kind === 'stitched'}
    />
    {#if kind === 'signatures'}<CoverFields draft={draft as unknown as SchemeDraft<Signatures>} {plan} list={bench.shown.list} />{/if}
  {:else if kind === 'leaflet'}
    <LeafletFields draft={draft as unknown as SchemeDraft<Leaflet>} {bench} />
  {:else if kind === 'flat'}
    <FlatFields draft={draft as unknown as SchemeDraft<Flat>} />
  {/if}
  {#if kind !== 'spreads' && kind !== 'single'}
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
  {#if plan && kind === 'flat'}<CutList {plan} unit={bench.unit} />{/if}
  {#if plan && 'stock' in draft.value}<SheetWorking {bench} {plan} scheme={draft.value as PressScheme} />{/if}
</form>

<style>
  .btns {
    position: sticky;
    bottom: 0;
    display: flex;
    gap: 8px;
    padding: 6px 0;
    background: var(--card);
  }
</style>
