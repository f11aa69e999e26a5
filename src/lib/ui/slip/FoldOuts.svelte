<script lang="ts">
  import { t, translated } from '../../words/language';
  import { formatLength } from '../../core/measure/formatLength';
  import { PANEL_NUMBERS, type PanelNumbers } from '../../core/model/page';
  import { addressOf, panelsOf } from '../../core/pages/panels';
  import type { Bench } from '../bench.svelte';
  import Choice from '../parts/Choice.svelte';
  import Folded from '../parts/Folded.svelte';

  let { bench }: { bench: Bench } = $props();

  const panels = $derived(panelsOf(bench.shown.list));
  const WORD: Record<PanelNumbers, string> = { lettered: '5a, 5b', continued: t`on from the last`, none: t`none` };
  function toggle(on: string): void {
    const next = new Set(bench.view.folded);
    if (!next.delete(on)) next.add(on);
    bench.view.folded = next;
  }
</script>

{#if panels.length}
  <Folded title={t`Fold-outs`} count={panels.length} open>
    <ul>
      {#each panels as { id, on, nth, front, back, folds } (id)}
        <li>
          <button class="link" onclick={() => bench.selected.choose([front.id, back.id])}>{addressOf({ on, nth })}</button>
          <span>{t`${formatLength(front.trim.width, bench.unit)}, over the ${translated(folds)}`}</span>
          {#if nth === 1}
            {@const closed = bench.view.folded.has(front.panel!.on)}
            <button class="link" aria-pressed={!closed} onclick={() => toggle(front.panel!.on)}>{closed ? t`open it` : t`fold it in`}</button>
          {/if}
        </li>
      {/each}
    </ul>
    <Choice
      label={t`Numbers on panels`}
      options={PANEL_NUMBERS.map((how) => [how, WORD[how]] as const)}
      value={bench.docket.book.panels ?? 'lettered'}
      onchange={(how) => bench.put({ ...bench.docket, book: { ...bench.docket.book, panels: how } })}
    />
  </Folded>
{/if}

<style>
  ul {
    list-style: none;
    margin: 2px 0 6px;
    padding: 0;
  }
  li {
    display: flex;
    gap: 8px;
    padding: 2px 0;
  }
  span {
    flex: 1;
  }
</style>
