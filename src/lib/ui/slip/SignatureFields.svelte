<script lang="ts">
  import { t } from '../../words/language';
  import { sayDistance } from '../../words/lengths';
  import { SIGNATURE_PAGES } from '../../core/fold/patterns';
  import type { SheetPlan } from '../../core/sheets/plan';
  import type { Signatures, Stitched } from '../../core/sheets/schemes';
  import Choice from '../parts/Choice.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import CreepFields from './CreepFields.svelte';
  import type { SchemeDraft } from './schemeDraft.svelte';

  let { draft, plan, safe, panels }: { draft: SchemeDraft<Stitched | Signatures>; plan: SheetPlan | undefined; safe: number; panels: boolean } =
    $props();
  const scheme = $derived(draft.value);
  const unit = $derived(draft.unit);
  const size = $derived(scheme.signature ?? 4);
  const room = (points: number) => sayDistance(points, t`This`, scheme.stock, unit);
</script>

{#if !panels}
  <Choice
    label={t`Pages a folded sheet has`}
    options={SIGNATURE_PAGES.map((pages) => [`${pages}`, `${pages}`] as const)}
    value={`${size}`}
    onchange={(pages) => draft.set({ signature: Number(pages) as typeof size })}
  />
{/if}
{#if scheme.kind === 'stitched'}
  <LengthField label={t`Gap at the fold`} value={scheme.gap} {unit} check={room} onchange={(points) => draft.take(points, (gap) => ({ gap }))} />
{:else}
  <Choice
    label={t`What is left for the last one`}
    options={[
      ['smaller', t`makes smaller ones`],
      ['blanks', t`is filled up`],
    ]}
    value={scheme.last}
    onchange={(last) => draft.set({ last })}
  />
  <div class="row">
    <LengthField
      label={t`Off the spine`}
      value={scheme.roughing}
      {unit}
      check={room}
      onchange={(points) => draft.take(points, (roughing) => ({ roughing }))}
    />
    <LengthField
      label={t`Off the other edges`}
      value={scheme.cutOff}
      {unit}
      check={room}
      onchange={(points) => draft.take(points, (cutOff) => ({ cutOff }))}
    />
  </div>
  <label class="tick"
    ><input type="checkbox" checked={scheme.collating} onchange={(event) => draft.set({ collating: event.currentTarget.checked })} />
    {t`collating marks on the spines`}</label
  >
{/if}
{#if scheme.kind === 'stitched' && size > 4}
  <LengthField
    label={t`Off head, foot and fore edge`}
    value={scheme.cutOff ?? 0}
    {unit}
    check={room}
    onchange={(points) => draft.take(points, (cutOff) => ({ cutOff }))}
  />
{/if}
<Choice
  label={t`Blanks that fill the last sheet`}
  options={[
    ['before-last', t`before the back cover`],
    ['end', t`at the end`],
  ]}
  value={scheme.pad}
  onchange={(pad) => draft.set({ pad })}
/>
<CreepFields {draft} {plan} {safe} />

<style>
  .tick {
    font-size: 13px;
  }
</style>
