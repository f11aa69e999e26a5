<script lang="ts">
  import { t } from '../../../words/language';
  import { sayFormat } from '../../../words/formats';
  import ContentFields from '../ContentFields.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, onchange }: FieldsProps<'format'> = $props();
  const chosen = $derived(bench.docket.formats.find(({ id }) => id === step.format));
</script>

<div>
  <label class="label" for="format">{t`Format`}</label>
  <select id="format" class="field" value={step.format} onchange={(event) => onchange({ ...step, format: event.currentTarget.value })}>
    {#each bench.docket.formats as { id, name } (id)}<option value={id}>{name}</option>{/each}
  </select>
  {#if chosen}<p class="quiet small">{sayFormat(chosen, bench.unit)}</p>
  {:else}<p class="wrong" role="alert">{t`There is no format yet. Make one first: Pages, Formats, New.`}</p>{/if}
</div>
{#if chosen?.trim}<ContentFields value={step} onchange={(how) => onchange({ ...step, ...how })} />{/if}
