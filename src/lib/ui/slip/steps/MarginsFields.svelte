<script lang="ts">
  import { pickedOf } from '../../../core/select/selection';
  import MarginFields from '../MarginFields.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'margins'> = $props();
  const trim = $derived(before.pages[pickedOf(step.pages, before)[0] ?? -1]?.trim);
</script>

<MarginFields book={before.book} value={step} {...trim ? { trim } : {}} unit={bench.unit} {onchange} />
