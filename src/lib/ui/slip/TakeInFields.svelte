<script lang="ts">
  import type { FieldsProps } from './fields';
  import PlaceField from './PlaceField.svelte';

  let { bench, step, before, onchange }: FieldsProps<'take-in'> = $props();
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
<PlaceField value={step.where} list={before} beside={bench.pickedSelection ?? 'last'} onchange={(where) => onchange({ ...step, where })} />

<style>
  .file {
    font-weight: 500;
    overflow-wrap: anywhere;
  }
</style>
