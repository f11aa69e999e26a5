<script lang="ts">
  import { t, translated } from '../../words/language';
  import { formatFigure } from '../../core/measure/formatLength';
  import type { SheetPlan } from '../../core/sheets/plan';
  import type { ByHand, CellAt } from '../../core/sheets/pressTerms';
  import type { Bench } from '../bench.svelte';
  import { changeCell, handChanges, putByHand, swapCell } from './byHand';

  let { bench, plan }: { bench: Bench; plan: SheetPlan | undefined } = $props();
  const view = $derived(bench.sheets);
  const unit = $derived(bench.unit);
  const changes = $derived(handChanges(bench));
  const at = $derived(view.cell);
  const sheet = $derived(at && at.sheet <= (plan?.sheetCount ?? 0) ? plan?.sheets[at.sheet - 1] : undefined);
  const cell = $derived(at && sheet?.[at.side]?.cells[at.cell - 1]);
  const say = ({ sheet, side, cell }: CellAt) => t`sheet ${sheet} ${translated(side)}, cell ${cell}`;
  const WORD: Record<ByHand['do'], string> = { turn: t`turned`, 'leave-out': t`left out`, swap: t`swapped` };
</script>

{#if (at && cell) || changes.length}
  <section class="fields" aria-label={t`By hand`}>
    {#if at && cell}
      <p>
        <b>{say(at)}</b><br />
        <span class="quiet"
          >{t`${cell.hand === 'left-out' ? t`left out` : cell.page ? t`page ${cell.name}` : t`blank ${cell.name}`}${cell.turn ? t`, turned ${cell.turn}°` : ''}, at`}
          <span class="mono">{formatFigure(cell.trim.x0, unit)} | {formatFigure(cell.trim.y0, unit)} {unit}</span></span
        >
      </p>
      <div class="acts">
        <button type="button" class="btn q small" onclick={() => changeCell(bench, { do: 'turn', at })}>{t`Turn`}</button>
        <button type="button" class="btn q small" aria-pressed={!!view.onswap} onclick={() => swapCell(bench, at)}>{t`Swap`}</button>
        <button type="button" class="btn q small" disabled={cell.hand === 'left-out'} onclick={() => changeCell(bench, { do: 'leave-out', at })}
          >{t`Leave out`}</button
        >
      </div>
      {#if view.onswap}<p class="quiet" role="status">{t`Click the cell that it changes places with.`}</p>{/if}
    {/if}
    {#if changes.length}
      <ol>
        {#each changes as change, n (n)}
          <li>
            <span>{say(change.at)} {WORD[change.do]}{change.do === 'swap' ? t` with ${say(change.with)}` : ''}</span>
            <button type="button" class="link" aria-label={t`Take back change ${n + 1}`} onclick={() => putByHand(bench, changes.toSpliced(n, 1))}
              >{t`take back`}</button
            >
          </li>
        {/each}
      </ol>
    {/if}
  </section>
{:else if plan}
  <p class="quiet hint">{t`Click a cell to turn it, swap it or leave it out.`}</p>
{/if}

<style>
  .fields {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
    padding: 8px 10px;
    background: var(--card-2);
    border-left: 4px solid var(--pick);
    font-size: 12.5px;
  }
  p {
    margin: 0;
  }
  b {
    font-weight: 600;
  }
  .hint {
    font-size: 12.5px;
  }
  .acts {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 6px;
  }
  ol {
    display: grid;
    gap: 4px;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 8px;
  }
  .link {
    white-space: nowrap;
  }
</style>
