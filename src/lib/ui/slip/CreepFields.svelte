<script lang="ts">
  import { t } from '../../words/language';
  import { formatLength } from '../../core/measure/formatLength';
  import { caliperOf, PLAIN_CALIPER } from '../../core/paper/stock';
  import type { SheetPlan } from '../../core/sheets/plan';
  import { MOST_FOLDED } from '../../core/sheets/scheme';
  import type { Signatures, Stitched } from '../../core/sheets/schemes';
  import CreepChart from './CreepChart.svelte';
  import Choice from '../parts/Choice.svelte';
  import Folded from '../parts/Folded.svelte';
  import LengthField from '../parts/LengthField.svelte';
  import type { SchemeDraft } from './schemeDraft.svelte';

  let { draft, plan, safe }: { draft: SchemeDraft<Stitched | Signatures>; plan: SheetPlan | undefined; safe: number } = $props();
  const creep = $derived(draft.value.creep);
  const last = $derived(plan?.creep?.at(-1) ?? { wanted: 0, done: 0 });
  const fromStock = $derived(caliperOf(draft.value.stock));
  const choose = (by: '' | 'shift' | 'scale') => {
    if (!by) return draft.set({ creep: undefined });
    const caliper = creep?.caliper ?? (fromStock === undefined ? PLAIN_CALIPER : undefined);
    draft.set({ creep: { by, ...(caliper === undefined ? {} : { caliper }) } });
  };
</script>

<Folded title={t`Creep`} open={!!creep}>
  <div class="fields">
    <Choice
      label={t`Inner leaves are`}
      options={[
        ['', t`left alone`],
        ['shift', t`moved in`],
        ['scale', t`narrowed`],
      ]}
      value={creep?.by ?? ''}
      onchange={choose}
    />
    {#if creep}
      <LengthField
        label={t`A leaf's thickness`}
        value={creep.caliper ?? fromStock ?? 0}
        unit={draft.unit}
        check={(points) =>
          points <= 0
            ? t`Paper is thicker than 0: type its caliper, or leave creep out.`
            : points > MOST_FOLDED
              ? t`Thicker than ${formatLength(MOST_FOLDED, draft.unit)} does not fold.`
              : undefined}
        onchange={(points) => draft.take(points, (caliper) => ({ creep: { by: creep.by, caliper } }))}
      />
      {#if plan?.creep}
        <CreepChart creep={plan.creep} by={creep.by} unit={draft.unit} {safe} />
        <p class="quiet">
          {t`${plan.creep.length} leaves deep: the innermost is ${creep.by === 'shift' ? t`moved towards the spine` : t`made narrower`} by (${plan.creep.length} − 1) × ${formatLength(plan.creep[1]?.wanted ?? 0, draft.unit)} = ${formatLength(last.wanted, draft.unit)}${last.wanted > last.done ? t`, but no further than the safe ${formatLength(last.done, draft.unit)}` : ''}.`}
        </p>
      {/if}
    {/if}
  </div>
</Folded>
