<script lang="ts">
  import { untrack } from 'svelte';
  import { inch, mm, type Unit } from '../../core/measure/unit';
  import { formatLength } from '../../core/measure/formatLength';
  import { MOST_BLEED } from '../../core/docket/steps/bleed';
  import type { StepOf } from '../../core/docket/steps';
  import LengthField from '../parts/LengthField.svelte';

  interface Props {
    step: StepOf<'bleed'>;
    unit: Unit;
    onchange: (step: StepOf<'bleed'>, wrong: boolean) => void;
  }
  let { step, unit, onchange }: Props = $props();

  const EDGES = [
    ['head', 'Head'],
    ['foot', 'Foot'],
    ['spine', 'Spine'],
    ['fore', 'Fore edge'],
  ] as const;
  let linked = $state(untrack(() => step.head === step.foot && step.foot === step.spine && step.spine === step.fore));
  let wrong = $state<Record<string, boolean>>({});

  const all = (points: number) => ({ head: points, foot: points, spine: points, fore: points });
  function set(edge: (typeof EDGES)[number][0], points: number | undefined): void {
    wrong = { ...wrong, [edge]: points === undefined };
    const bad = Object.values(wrong).some(Boolean);
    onchange(points === undefined ? step : { ...step, ...(linked ? all(points) : { [edge]: points }) }, bad);
  }
  function preset(points: number): void {
    wrong = {};
    onchange({ ...step, ...all(points) }, false);
  }
  function check(points: number): string | undefined {
    if (points < 0) return 'Bleed lies outside the trim, so it cannot be less than 0.';
    if (points > MOST_BLEED) return `More than ${formatLength(MOST_BLEED, unit)}: no cut is that far off.`;
    return undefined;
  }
</script>

<div class="head">
  <span class="label">Bleed</span>
  <label><input type="checkbox" bind:checked={linked} onchange={() => linked && preset(step.head)} /> all edges alike</label>
</div>
{#if linked}
  <LengthField label="All round" value={step.head} {unit} {check} onchange={(points) => set('head', points)} />
{:else}
  <div class="row">
    {#each EDGES as [edge, word] (edge)}
      <LengthField label={word} value={step[edge]} {unit} {check} onchange={(points) => set(edge, points)} />
    {/each}
  </div>
{/if}
<div class="presets">
  <button type="button" class="link" onclick={() => preset(mm(3))}>3 mm</button>
  <button type="button" class="link" onclick={() => preset(inch(0.125))}>1/8 in</button>
  <button type="button" class="link" onclick={() => preset(0)}>none</button>
</div>

<style>
  .head {
    display: flex;
    justify-content: space-between;
    margin-bottom: -8px;
    font-size: 12.5px;
  }
  .row {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 8px;
  }
  .presets {
    display: flex;
    gap: 14px;
    font-size: 13px;
    margin-top: -6px;
  }
</style>
