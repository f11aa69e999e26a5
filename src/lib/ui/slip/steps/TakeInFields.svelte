<script lang="ts">
  import { limitsOf } from '../../../core/docket/limitsOf';
  import { stepKind } from '../../../core/docket/steps';
  import type { FieldsProps } from '../fields';
  import NewFormatField from '../NewFormatField.svelte';
  import PlaceField from '../PlaceField.svelte';

  let { bench, step, before, onchange }: FieldsProps<'take-in'> = $props();
  const picture = $derived(bench.surveys[step.source]?.picture);
  let wrong = $state(false);
  const LIMITS = limitsOf(stepKind('take-in').schema, 'ppi');
</script>

<p class="file">{step.name}</p>
<div>
  <label class="label" for="take">Its pages</label>
  <input
    id="take"
    class="field mono"
    value={step.take ?? ''}
    placeholder="all"
    oninput={(event) => onchange({ ...step, take: event.currentTarget.value.trim() || undefined })}
  />
</div>
{#if picture}
  <div>
    <label class="label" for="ppi">Pixels an inch</label>
    <input
      id="ppi"
      class="field mono"
      type="number"
      min={LIMITS.least}
      max={LIMITS.most}
      value={step.ppi ?? Math.round(picture.ppi * 100) / 100}
      oninput={(event) => {
        const ppi = event.currentTarget.valueAsNumber;
        wrong = !(ppi >= LIMITS.least && ppi <= LIMITS.most);
        onchange(wrong ? step : { ...step, ppi }, wrong);
      }}
    />
    {#if wrong}<p class="wrong" role="alert">Pixels an inch are from {LIMITS.least} to {LIMITS.most}.</p>{/if}
    <p class="quiet small">
      {picture.stated ? `The ${picture.kind} states ${Math.round(picture.ppi)}.` : `The ${picture.kind} states none; 300 is assumed.`}
    </p>
  </div>
{/if}
<PlaceField value={step.where} list={before} beside={bench.selected.selection ?? 'last'} onchange={(where) => onchange({ ...step, where })} />
<NewFormatField value={step.format} formats={bench.docket.formats} onchange={(format) => onchange({ ...step, format }, wrong)} />

<style>
  .file {
    font-weight: 500;
    overflow-wrap: anywhere;
  }
</style>
