<script lang="ts">
  import { t } from '../../words/language';
  import { scaleLinear } from 'd3-scale';
  import { formatSize } from '../../core/measure/formatLength';
  import { samePaper } from '../../core/paper/stock';
  import { rankStocks } from '../../core/sheets/rank';
  import type { Bench } from '../bench.svelte';
  import { papers } from '../kept.svelte';
  import Folded from '../parts/Folded.svelte';
  import type { PressDraft } from './schemeDraft.svelte';

  let { bench, draft }: { bench: Bench; draft: PressDraft } = $props();
  let open = $state(false);
  const ranked = $derived(open ? rankStocks(bench.shown.list, draft.value, papers.all) : []);
  const x = scaleLinear([0, 1], [0, 100]);
</script>

<Folded title={t`Which sheet?`} ontoggle={(shown) => (open = shown)}>
  <p class="quiet">{t`Pieces on a sheet, or copies on each sheet of a book, and how much of it becomes pieces. Picking one uses it.`}</p>
  <ul>
    {#each ranked as { name, stock, pieces, between, waste }, n (n)}
      <li>
        <button
          type="button"
          class:on={samePaper(stock, draft.value.stock)}
          title={formatSize(stock.width, stock.height, bench.unit)}
          onclick={() => draft.set({ stock, copies: 'most', between })}
        >
          <span>{name}</span><span class="mono">{pieces}</span>
          <span class="bar"><i style:width="{x(1 - waste)}%"></i></span><span class="mono">{Math.round(100 * (1 - waste))} %</span>
        </button>
      </li>
    {/each}
  </ul>
  {#if open && !ranked.length}<p class="quiet">{t`No sheet of the list takes this piece with its marks.`}</p>{/if}
</Folded>

<style>
  ul {
    list-style: none;
    margin: 4px 0 0;
    padding: 0;
  }
  button {
    display: grid;
    grid-template-columns: 62px 34px 1fr 40px;
    gap: 8px;
    align-items: center;
    width: 100%;
    padding: 2px 4px;
    border: 0;
    background: none;
    text-align: left;
    font-size: 12px;
    cursor: pointer;
  }
  button:hover,
  .on {
    background: var(--well);
  }
  .mono {
    text-align: right;
    font-size: 11.5px;
  }
  .bar {
    height: 9px;
    background: var(--rule);
  }
  i {
    display: block;
    height: 100%;
    background: #1b7f8c;
  }
</style>
