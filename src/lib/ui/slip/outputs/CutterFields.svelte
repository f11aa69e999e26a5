<script lang="ts">
  import { t } from '../../../words/language';
  import { cutsOf } from '../../../core/handover/standIns';
  import { sayCutBy } from '../../../words/machines';
  import Choice from '../../parts/Choice.svelte';
  import type { OutputFieldsProps } from './outputFields';

  let { bench, output, onchange }: OutputFieldsProps<'cutter'> = $props();
  const id = $props.id();
  const known = $derived(cutsOf(bench.base, output.of));
</script>

{#if bench.base.plan}
  <Choice
    label={t`Cuts`}
    options={[
      ['pages', t`pages`],
      ['sheets', t`sheets`],
    ]}
    value={output.of}
    onchange={(of) => onchange({ of, by: undefined })}
  />
{/if}
<div>
  <label class="label" for={id}>{t`Follows`}</label>
  <select
    {id}
    class="field"
    value={output.by ? sayCutBy(output.by) : ''}
    onchange={(event) => onchange({ by: known.find((by) => sayCutBy(by) === event.currentTarget.value) })}
  >
    <option value="">{known[0] ? t`the likeliest: ${sayCutBy(known[0])}` : t`nothing: no ink or layer to follow`}</option>
    {#each known.map(sayCutBy) as by (by)}<option value={by}>{by}</option>{/each}
  </select>
</div>
