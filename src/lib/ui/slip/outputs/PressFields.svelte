<script lang="ts">
  import { t } from '../../../words/language';
  import { PRESS_TURNS, type PressTurn } from '../../../core/handover/machines';
  import { plannedTurn, pressMistake } from '../../../core/handover/standIns';
  import { PRESS_MISTAKE, TURN_SAID } from '../../../words/machines';
  import type { OutputFieldsProps } from './outputFields';
  import PlainFields from './PlainFields.svelte';

  let { bench, output, onchange }: OutputFieldsProps<'press'> = $props();
  const id = $props.id();
  const planned = $derived(bench.base.plan && plannedTurn(bench.base.plan));
  const mistake = $derived(bench.base.plan && pressMistake(bench.base.plan, output));
</script>

{#if planned === 'one-side'}<p class="quiet">{t`The sheets have one printed side each.`}</p>{:else}
  <div>
    <label class="label" for={id}>{t`The press prints each sheet`}</label>
    <select
      {id}
      class="field"
      value={output.turn ?? ''}
      onchange={(event) => onchange({ turn: (event.currentTarget.value || undefined) as PressTurn | undefined })}
    >
      <option value="">{t`as planned${planned ? `: ${planned.replace('-', ' ')}` : ''}`}</option>
      {#each PRESS_TURNS as turn (turn)}<option value={turn}>{TURN_SAID[turn]}</option>{/each}
    </select>
    {#if planned && mistake}
      <p class="wrong" role="alert">{t`The sheets are laid to be ${TURN_SAID[planned]}. ${PRESS_MISTAKE[mistake]}`}</p>
    {/if}
  </div>
{/if}
<PlainFields {bench} {output} apart={['turn']} onchange={(change, wrong) => onchange(change as Partial<typeof output>, wrong)} />
