<script lang="ts" generics="Edge extends string">
  import { t } from '../../words/language';
  import { recordOf } from '../../core/entries';
  import { untrack } from 'svelte';
  import type { Unit } from '../../core/measure/unit';
  import LengthField from '../parts/LengthField.svelte';

  interface Props {
    label: string;
    edges: readonly (readonly [edge: Edge, word: string])[];
    values: Record<Edge, number>;
    unit: Unit;
    /** Says why a length in points will not do at an edge. */
    check?: (points: number, edge: Edge) => string | undefined;
    /** All edges begin apart even where they are alike. */
    apart?: boolean;
    onchange: (values: Record<Edge, number>, wrong: boolean) => void;
  }
  let { label, edges, values, unit, check, apart = false, onchange }: Props = $props();

  let linked = $state(untrack(() => !apart && edges.every(([edge]) => values[edge] === values[edges[0]![0]])));
  let wrong = $state<Partial<Record<Edge, boolean>>>({});
  const first = $derived(edges[0]![0]);

  function set(edge: Edge, points: number | undefined): void {
    wrong = { ...wrong, [edge]: points === undefined };
    const bad = Object.values(wrong).some(Boolean);
    if (points === undefined) return onchange(values, bad);
    onchange(linked ? alike(points) : { ...values, [edge]: points }, bad);
  }
  const alike = (points: number) =>
    recordOf(
      edges.map(([edge]) => edge),
      () => points,
    );
  function link(): void {
    wrong = {};
    if (linked) onchange(alike(values[first]), false);
  }
</script>

<div class="head">
  <span class="label">{label}</span>
  <label><input type="checkbox" bind:checked={linked} onchange={link} /> {t`all alike`}</label>
</div>
{#if linked}
  <LengthField
    label={t`All round`}
    value={values[first]}
    {unit}
    check={(points) => check?.(points, first)}
    onchange={(points) => set(first, points)}
  />
{:else}
  <div class="row">
    {#each edges as [edge, word] (edge)}
      <LengthField label={word} value={values[edge]} {unit} check={(points) => check?.(points, edge)} onchange={(points) => set(edge, points)} />
    {/each}
  </div>
{/if}

<style>
  .head {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    margin-bottom: -8px;
    font-size: 12.5px;
  }
  .head label {
    flex: none;
  }
</style>
