<script lang="ts">
  import { formatFigure, formatSize, UNIT_SIGN } from '../../core/measure/formatLength';
  import type { Unit } from '../../core/measure/unit';
  import { cutAt, cutList } from '../../core/sheets/cuts';
  import type { SheetPlan } from '../../core/sheets/plan';
  import Folded from '../parts/Folded.svelte';

  let { plan, unit }: { plan: SheetPlan; unit: Unit } = $props();
  const cuts = $derived(cutList(plan.sheets[0]!));
</script>

<Folded title="Cut list" count={cuts?.length ?? 0}>
  {#if cuts}
    <p class="quiet">Of the first sheet, each cut right through the paper under the knife, from its left or its foot, in {UNIT_SIGN[unit]}.</p>
    <table>
      <tbody>
        {#each cuts as cut (cut.number)}
          <tr>
            <td class="mono">{cut.number}</td>
            <td>{cut.axis === 'vertical' ? 'from the left' : 'from the foot'}</td>
            <td class="mono">{formatFigure(cutAt(cut), unit)}</td>
            <td class="quiet">of {formatSize(cut.paper.x1 - cut.paper.x0, cut.paper.y1 - cut.paper.y0, unit)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="wrong">No cut goes right through between these pieces: a guillotine cannot part them.</p>
  {/if}
</Folded>

<style>
  table {
    border-spacing: 0;
    font-size: 12px;
  }
  td {
    padding: 0 10px 0 0;
    white-space: nowrap;
  }
  .mono {
    text-align: right;
  }
</style>
