<script lang="ts">
  import OneLine from '../OneLine.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'folio'> = $props();
</script>

<OneLine {bench} {step} book={before.book} tokens={['page', 'pages', 'label', 'series']} {onchange} />
