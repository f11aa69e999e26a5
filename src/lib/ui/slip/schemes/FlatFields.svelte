<script lang="ts">
  import { t } from '../../../words/language';
  import { RUNS_OF_CELLS, START_CORNERS } from '../../../core/sheets/scheme';
  import type { Flat } from '../../../core/sheets/schemes';
  import { ARRANGE_NAME } from '../../../words/press';
  import Choice from '../../parts/Choice.svelte';
  import type { SchemeFieldsProps } from '../schemeDraft.svelte';

  let { draft }: SchemeFieldsProps<'flat'> = $props();
  const scheme = $derived(draft.value);
  const CORNER = { 'head-left': t`head left`, 'head-right': t`head right`, 'foot-left': t`foot left`, 'foot-right': t`foot right` };
  const RUN = { across: t`across`, down: t`down`, snake: t`to and fro` };
</script>

<Choice
  label={t`The sheet carries`}
  options={(Object.keys(ARRANGE_NAME) as Flat['arrange'][]).map((arrange) => [arrange, ARRANGE_NAME[arrange]] as const)}
  value={scheme.arrange}
  onchange={(arrange) => draft.set({ arrange })}
/>
{#if scheme.arrange === 'stack'}
  <p class="quiet">{t`Cut apart, the piles laid on one another are in order: each goes on where the one before it ends.`}</p>
{/if}
{#if scheme.arrange === 'gang'}
  <p class="quiet">{t`Each piece as often as its quantity asks for, so that few sheets give all of them. Quantities are given to pages on Pages.`}</p>
{/if}
{#if scheme.arrange === 'sequence' || scheme.arrange === 'stack'}
  <Choice
    label={t`Filled`}
    options={RUNS_OF_CELLS.map((run) => [run, RUN[run]] as const)}
    value={scheme.goes}
    onchange={(goes) => draft.set({ goes })}
  />
  <div>
    <label class="label" for="corner">{t`from`}</label>
    <select id="corner" class="field" value={scheme.start} onchange={(event) => draft.set({ start: event.currentTarget.value as Flat['start'] })}>
      {#each START_CORNERS as corner (corner)}<option value={corner}>{CORNER[corner]}</option>{/each}
    </select>
  </div>
{/if}
