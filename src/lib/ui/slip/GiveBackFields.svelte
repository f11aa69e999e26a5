<script lang="ts">
  import type { FieldsProps } from './fields';
  import PlaceField from './PlaceField.svelte';

  let { step, before, onchange }: FieldsProps<'give-back'> = $props();
</script>

<PlaceField value={step.where} list={before} beside="last" onchange={(where) => onchange({ ...step, where })} />
<p class="quiet small">The pages that these panels show go back into the list; faces that were made blank go away.</p>
