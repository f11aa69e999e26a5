<script lang="ts">
  import { t } from '../../../words/language';
  import { pickedOf } from '../../../core/select/selection';
  import Choice from '../../parts/Choice.svelte';
  import GridFields from '../GridFields.svelte';
  import CutFields from '../CutFields.svelte';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'split'> = $props();

  let wrong = $state({ grid: false, cut: false });
  function set(change: Partial<typeof step>, field: keyof typeof wrong, bad: boolean): void {
    wrong = { ...wrong, [field]: bad };
    onchange({ ...step, ...change }, Object.values(wrong).some(Boolean));
  }
  const size = $derived(before.pages[pickedOf(step.pages, before)[0] ?? -1]?.trim);
  let grid = $state(false);
  const into = $derived(grid || step.columns * step.rows !== 2 ? 'grid' : step.columns === 2 ? 'across' : 'down');
  function choose(which: 'across' | 'down' | 'grid'): void {
    grid = which === 'grid';
    wrong = { grid: false, cut: false };
    const [columns, rows] = ({ across: [2, 1], down: [1, 2], grid: [2, 2] } as const)[which];
    const { at: _, ...rest } = step;
    onchange({ ...rest, columns, rows });
  }
</script>

<Choice
  label={t`Into`}
  options={[
    ['across', t`left and right`],
    ['down', t`top and bottom`],
    ['grid', t`a grid`],
  ]}
  value={into}
  onchange={choose}
/>
{#if into === 'grid'}
  <GridFields columns={step.columns} rows={step.rows} onchange={(grid, bad) => set(grid, 'grid', bad)} />
{/if}
<CutFields
  value={step}
  along={into === 'grid' ? undefined : into === 'across' ? 'width' : 'height'}
  {size}
  unit={bench.unit}
  onchange={({ at, gutter }, bad) => {
    const { at: _, ...rest } = step;
    wrong = { ...wrong, cut: bad };
    onchange({ ...rest, ...(at === undefined ? {} : { at }), gutter }, Object.values(wrong).some(Boolean));
  }}
/>
