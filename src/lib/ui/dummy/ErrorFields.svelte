<script lang="ts">
  import { t } from '../../words/language';
  import { errs, PLAIN_ERRORS, type MachineErrors } from '../../core/finish/errors';
  import { EDGE_REACH } from '../../core/finish/proof';
  import { formatLength } from '../../core/measure/formatLength';
  import type { Bench } from '../bench.svelte';
  import LengthField from '../parts/LengthField.svelte';

  let { bench }: { bench: Bench } = $props();
  const view = $derived(bench.dummy);
  const put = (more: Partial<MachineErrors>) => view.err({ ...view.errors, ...more });
  const LENGTHS = [
    ['knife', t`Knives cut outside their line by`],
    ['fold', t`Folds lie beside their line by`],
    ['register', t`Backs lie right of and above the fronts by`],
  ] as const;
  const OTHERS = [
    ['turned', t`The press turns on the other edge`],
    ['gathered', t`The first two sheets lie in the wrong order`],
  ] as const;
  const check = (points: number) =>
    Math.abs(points) > EDGE_REACH ? t`No machine errs by more than ${formatLength(EDGE_REACH, bench.unit)}.` : undefined;
</script>

<details open={errs(view.errors)}>
  <summary>{t`Let the machines err`}</summary>
  <div class="fields">
    {#each LENGTHS as [key, label] (key)}
      <LengthField {label} value={view.errors[key]} unit={bench.unit} {check} onchange={(points) => points !== undefined && put({ [key]: points })} />
    {/each}
    {#each OTHERS as [key, label] (key)}
      <label class="check"
        ><input type="checkbox" checked={view.errors[key]} onchange={(event) => put({ [key]: event.currentTarget.checked })} /> {label}</label
      >
    {/each}
    {#if errs(view.errors)}<button class="btn q" type="button" onclick={() => view.err(PLAIN_ERRORS)}>{t`Without errors`}</button>{/if}
    <p class="quiet">{t`What the finished piece shows then is seen on the left. Nothing of it is printed.`}</p>
  </div>
</details>

<style>
  summary {
    font-size: 14px;
    font-weight: 600;
    cursor: pointer;
  }
  .fields {
    display: grid;
    gap: 8px;
    margin-top: 8px;
  }
  .check {
    font-size: 13px;
  }
  p {
    margin: 0;
    font-size: 12.5px;
  }
</style>
