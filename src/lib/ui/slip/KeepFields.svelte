<script lang="ts">
  import Choice from '../parts/Choice.svelte';
  import type { FieldsProps } from './fields';

  let { step, onchange }: FieldsProps<'keep'> = $props();
</script>

<Choice
  label="These pages"
  options={[
    ['keep', 'stay together'],
    ['go', 'may part'],
  ]}
  value={step.together ? 'keep' : 'go'}
  onchange={(how) => onchange({ ...step, together: how === 'keep' })}
/>
<p class="quiet small">One page stands for itself and the one that it faces. A step that would part a kept pair says so, and how to mend it.</p>
