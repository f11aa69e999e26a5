<script lang="ts">
  import PlaceField from './PlaceField.svelte';
  import type { FieldsProps } from './fields';

  let { step, before, onchange }: FieldsProps<'move'> = $props();
</script>

<PlaceField value={step.where} list={before} beside="last" onchange={(where) => onchange({ ...step, where })} />
