<script lang="ts">
  import Choice from '../parts/Choice.svelte';
  import type { FieldsProps } from './fields';

  let { step, onchange }: FieldsProps<'turn'> = $props();
</script>

<Choice
  label="Turn"
  options={[
    ['90', 'right 90°'],
    ['180', '180°'],
    ['270', 'left 90°'],
  ]}
  value={String(step.by) as '90' | '180' | '270'}
  onchange={(by) => onchange({ ...step, by: Number(by) as 90 | 180 | 270 })}
/>
<Choice
  label="Which of them"
  options={[
    ['all', 'all'],
    ['portrait', 'not portrait'],
    ['landscape', 'not landscape'],
  ]}
  value={step.unless ?? 'all'}
  onchange={(which) => onchange({ ...step, unless: which === 'all' ? undefined : which })}
/>
<p class="quiet small">“Not portrait” turns only those that do not stand yet. Bleed set by edge stays with the book’s edges.</p>
