<script lang="ts">
  import { t } from '../../../words/language';
  import { inksOf } from '../../../core/numbers/jobInks';
  import type { FieldsProps } from '../fields';

  let { bench, step, before, onchange }: FieldsProps<'ink'> = $props();
  const id = $props.id();
  /** The spot inks as the step meets them. */
  const spots = $derived(inksOf(before, bench.surveys, bench.docket).flatMap(({ name, kind }) => (kind === 'spot' ? [name] : [])));
  const others = $derived(spots.filter((name) => name !== step.from));
</script>

<div>
  <label class="label" for="{id}-from">{t`Spot ink`}</label>
  <select id="{id}-from" class="field" value={step.from} onchange={(event) => onchange({ ...step, from: event.currentTarget.value })}>
    {#each spots as spot (spot)}<option>{spot}</option>{/each}
  </select>
</div>
<div>
  <label class="label" for="{id}-to">{t`Printed as`}</label>
  <input
    id="{id}-to"
    class="field"
    list="{id}-others"
    maxlength="120"
    autocomplete="off"
    value={step.to}
    oninput={(event) => onchange({ ...step, to: event.currentTarget.value }, !event.currentTarget.value.trim())}
  />
  <datalist id="{id}-others"
    >{#each others as spot (spot)}<option value={spot}></option>{/each}</datalist
  >
  {#if !step.to.trim()}<p class="wrong" role="alert">{t`An ink needs a name: plates are told apart by it.`}</p>{/if}
</div>
<p class="quiet small">
  {others.includes(step.to.trim())
    ? t`It shares the plate of “${step.to.trim()}”; their tints stay as they are.`
    : t`A new name for its plate. Choose another spot’s name to print it with that ink.`}
</p>
