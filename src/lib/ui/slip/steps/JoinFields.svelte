<script lang="ts">
  import { t } from '../../../words/language';
  import { plural } from '../../../words/plural';
  import { pickedOf } from '../../../core/select/selection';
  import Choice from '../../parts/Choice.svelte';
  import LengthField from '../../parts/LengthField.svelte';
  import GridFields from '../GridFields.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'join'> = $props();

  let wrong = $state({ grid: false, gap: false });
  function set(change: Partial<typeof step>, field: keyof typeof wrong, bad: boolean): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }
  let own = $state(false);
  const how = $derived(own ? 'own' : step.columns === 2 && step.rows === 1 ? 'spread' : step.columns === 2 && step.rows === 2 ? 'four' : 'own');
  function choose(which: 'spread' | 'four' | 'own'): void {
    own = which === 'own';
    wrong = { ...wrong, grid: false };
    onchange({ ...step, columns: 2, rows: which === 'spread' ? 1 : 2 }, wrong.gap);
  }
  const count = $derived(pickedOf(step.pages, before).length);
  const each = $derived(step.columns * step.rows);
</script>

<Choice
  label={t`Together`}
  options={[
    ['spread', t`2, a spread`],
    ['four', t`4 to a page`],
    ['own', t`a grid`],
  ]}
  value={how}
  onchange={choose}
/>
{#if how === 'own'}
  <GridFields columns={step.columns} rows={step.rows} onchange={(grid, bad) => set(grid, 'grid', bad)} />
{/if}
<LengthField
  label={t`Apart`}
  value={step.gap}
  unit={bench.unit}
  check={(points) => (points < 0 ? t`Pages cannot be less than 0 apart.` : undefined)}
  onchange={(gap) => set(gap === undefined ? {} : { gap }, 'gap', gap === undefined)}
/>
{#if count && each}
  <p class="mono small">
    {t`${count} ÷ ${each} = ${plural(Math.ceil(count / each), 'page')}${count % each ? t`, the last with ${count % each} on it` : ''}`}
  </p>
{/if}
