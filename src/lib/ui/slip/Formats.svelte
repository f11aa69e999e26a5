<script lang="ts">
  import { t } from '../../words/language';
  import type { Format } from '../../core/docket/format';
  import Folded from '../parts/Folded.svelte';
  import { sayFormat } from '../../words/formats';
  import type { Bench } from '../bench.svelte';
  import { newStepId } from '../newStepId';

  let { bench }: { bench: Bench } = $props();

  const page = $derived(bench.base.list.pages[bench.selected.indexes[0] ?? -1]);
  const uses = $derived.by(() => {
    const counts = new Map<string, number>();
    for (const { format } of bench.base.list.pages) if (format) counts.set(format.id, (counts.get(format.id) ?? 0) + 1);
    return counts;
  });

  function make(): void {
    const { margins, columns, bleed, trim } = page ?? {};
    const made: Format = {
      id: newStepId(),
      name: t`Format ${bench.docket.formats.length + 1}`,
      ...(trim ? { trim } : {}),
      ...(bleed?.by === 'edge' ? { bleed: { head: bleed.head, foot: bleed.foot, spine: bleed.spine, fore: bleed.fore } } : {}),
      ...(margins ? { margins: { ...margins, columns: columns?.count ?? 1, gap: columns?.gap ?? 0 } } : {}),
    };
    bench.leave();
    bench.draft.format = made;
  }
  const drop = (id: string) => bench.put({ ...bench.docket, formats: bench.docket.formats.filter((format) => format.id !== id) });
  function edit(format: Format): void {
    bench.leave();
    bench.draft.format = format;
  }
  const choose = (id: string) => bench.selected.choose(bench.base.list.pages.filter(({ format }) => format?.id === id).map((each) => each.id));
</script>

<Folded title={t`Formats`} count={bench.docket.formats.length} open={bench.docket.formats.length > 0}>
  {#if bench.docket.formats.length}
    <ul>
      {#each bench.docket.formats as format (format.id)}
        <li
          draggable="true"
          ondragstart={(event) => event.dataTransfer?.setData('application/x-folder-format', format.id)}
          title={t`Drop it on a page. ${sayFormat(format, bench.unit)}`}
        >
          <button class="name" onclick={() => edit(format)}>{format.name}</button>
          <button class="link mono" title={t`Select the pages that follow it`} disabled={!uses.get(format.id)} onclick={() => choose(format.id)}
            >{t`${uses.get(format.id) ?? 0} p`}</button
          >
          <button class="link" disabled={!bench.base.list.pages.length} onclick={() => bench.tryFormat(format.id, bench.selected.selection ?? 'all')}
            >{t`apply to ${bench.selected.ids.size ? t`selected` : t`all`}`}</button
          >
          {#if !uses.get(format.id)}<button class="link" aria-label={t`Delete format ${format.name}`} onclick={() => drop(format.id)}>×</button>{/if}
        </li>
      {/each}
    </ul>
  {:else}
    <p>{t`A format is a named set of trim size, bleed and margins. Change it, and every page that has it follows.`}</p>
  {/if}
  <button class="link" onclick={make}>{page ? t`New from page ${bench.selected.indexes[0]! + 1}` : t`New format`}</button>
</Folded>

<style>
  ul {
    list-style: none;
    margin: 4px 0;
    padding: 0;
  }
  li {
    display: flex;
    align-items: baseline;
    gap: 8px;
    padding: 3px 6px;
    border: 1px solid var(--rule);
    border-bottom: 0;
    background: var(--well);
    cursor: grab;
  }
  li:last-child {
    border-bottom: 1px solid var(--rule);
  }
  .name {
    flex: 1;
    min-width: 0;
    padding: 0;
    border: 0;
    background: none;
    font-weight: 500;
    text-align: left;
    overflow-wrap: anywhere;
    cursor: pointer;
  }
  p {
    margin: 3px 0;
    color: var(--ink-2);
  }
</style>
