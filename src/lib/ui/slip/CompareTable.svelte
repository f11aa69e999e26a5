<script lang="ts">
  import { t } from '../../words/language';
  import { applyToBox } from '../../core/measure/matrix';
  import type { Box } from '../../core/measure/box';
  import { formatSize } from '../../core/measure/formatLength';
  import { bleedBox, sideOf } from '../../core/pages/page';
  import { sayPercent } from '../../words/lengths';
  import type { Bench } from '../bench.svelte';
  import { tidy } from '../mat/dragging';

  /** Sizes and boxes of the first selected page, as supplied and now. */
  let { bench }: { bench: Bench } = $props();

  const index = $derived(bench.selected.indexes[0] ?? bench.shown.list.pages.findIndex(({ art }) => art));
  const page = $derived(bench.shown.list.pages[index]);
  const source = $derived(page?.art && bench.surveys[page.art.source]?.pages[page.art.index]);
  const size = (b: Box) => formatSize(b.x1 - b.x0, b.y1 - b.y0, bench.unit).replace(/ [a-z]+$/, '');
  /** The ink is measured to half a point: no more figures than that are worth showing. */
  const rough = ({ x0, y0, x1, y1 }: Box) => size({ x0: 0, y0: 0, x1: tidy(x1 - x0, bench.unit), y1: tidy(y1 - y0, bench.unit) });
  const rows = $derived.by(() => {
    if (!page?.art || !source) return [];
    const trim = { x0: 0, y0: 0, x1: page.trim.width, y1: page.trim.height };
    const bleed = bleedBox(page, sideOf(index, bench.shown.list.book));
    const { boxes, given } = source;
    const named = (box: 'media' | 'bleed' | 'trim' | 'crop', now: string) => ({
      name: box,
      before: `${size(boxes[box])}${given.includes(box) ? '' : ' *'}`,
      now,
    });
    return [
      named('media', size(bleed)),
      named('crop', size(bleed)),
      named('bleed', size(bleed)),
      named('trim', size(trim)),
      ...(source.drawn?.ink ? [{ name: 'ink', before: rough(source.drawn.ink), now: rough(applyToBox(page.art.place, source.drawn.ink)) }] : []),
    ];
  });
  const scale = $derived(page?.art ? Math.hypot(page.art.place[0], page.art.place[1]) : 1);
  const up = $derived(page?.art ? Math.hypot(page.art.place[2], page.art.place[3]) : 1);
</script>

{#if page && source}
  <table>
    <caption>{t`Page ${index + 1}, sizes in ${bench.unit === 'in-decimal' ? 'in' : bench.unit}`}</caption>
    <thead><tr><td></td><th>{t`as supplied`}</th><th>{t`now`}</th></tr></thead>
    <tbody>
      {#each rows as { name, before, now } (name)}
        <tr class:other={before.replace(' *', '') !== now}><th>{name}</th><td>{before}</td><td>{now}</td></tr>
      {/each}
      <tr class:other={Math.abs(scale - 1) > 1e-6}
        ><th>{t`scale`}</th><td>100 %</td><td>{sayPercent(scale)}{Math.abs(scale - up) > 1e-6 ? ` × ${sayPercent(up)}` : ''}</td></tr
      >
    </tbody>
  </table>
  <p class="quiet">{t`* not in the file; what the standard puts in its place`}</p>
{:else}
  <p class="quiet">{t`Select a page that shows a source to compare the two.`}</p>
{/if}

<style>
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 12px;
  }
  caption {
    padding-bottom: 4px;
    text-align: left;
    font-weight: 600;
  }
  th {
    font-weight: 400;
    color: var(--ink-2);
    text-align: left;
  }
  thead th:not(:first-child),
  td {
    text-align: right;
    font-family: var(--narrow);
    font-variant-numeric: tabular-nums;
  }
  tr {
    border-top: 1px solid var(--rule);
  }
  td {
    padding: 3px 0 3px 8px;
    white-space: nowrap;
  }
  .other td:last-child {
    font-weight: 700;
    color: var(--act);
  }
  p {
    font-size: 12px;
  }
</style>
