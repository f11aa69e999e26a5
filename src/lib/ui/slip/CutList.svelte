<script lang="ts">
  import { t } from '../../words/language';
  import { formatFigure, formatSize, UNIT_SIGN } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import { cutList, cutOperations } from '../../core/finish/cuts';
  import type { SheetPlan } from '../../core/sheets/plan';
  import { sayStrips } from '../../words/finishing';
  import Folded from '../parts/Folded.svelte';

  let { plan, unit }: { plan: SheetPlan; unit: Unit } = $props();
  const cuts = $derived.by(() => {
    const all = cutList(plan, 0);
    return all && cutOperations(all);
  });
</script>

<Folded title={t`Cut list`} count={cuts?.length ?? 0}>
  {#if cuts}
    <p class="quiet">
      {t`Of the first sheet, front up, in ${UNIT_SIGN[unit]}: each cut goes right through, measured from the edge of what is left. Strips are counted from the left or the foot.`}
    </p>
    <table>
      <tbody>
        {#each cuts as cut, n (cut.number)}
          {#if cut.strips !== cuts[n - 1]?.strips}
            <tr
              ><th colspan="4"
                >{sayStrips(cut.strips)}, {formatSize(cut.paper.width, cut.paper.height, unit)}{cut.strips.length > 1
                  ? t`, ${cut.strips.length} times`
                  : ''}</th
              ></tr
            >
          {/if}
          <tr>
            <td class="mono">{cut.number}</td>
            <td>{cut.axis === 'vertical' ? t`from the left` : t`from the foot`}</td>
            <td class="mono">{formatFigure(cut.at, unit)}</td>
            <td class="quiet">{cut.off === 'waste' ? t`waste` : ''}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="wrong">{t`No cut goes right through between these pieces: a guillotine cannot part them.`}</p>
  {/if}
</Folded>

<style>
  table {
    border-spacing: 0;
    font-size: 12px;
  }
  th {
    padding: 6px 0 1px;
    text-align: left;
    font-weight: 600;
  }
  td {
    padding: 0 10px 0 0;
    white-space: nowrap;
  }
  .mono {
    text-align: right;
  }
</style>
