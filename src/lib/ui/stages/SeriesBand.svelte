<script lang="ts" module>
  /** Fills that tell series apart by colour and pattern. */
  export const FILLS = [
    { color: '#cfe0d8', line: '#0f6b5c', d: 'M0 8L8 0' },
    { color: '#f0dfb8', line: '#a86f00', d: 'M0 4H8' },
    { color: '#d3dce6', line: '#4f6279', d: 'M4 0V8' },
    { color: '#ecd0c7', line: '#b5452c', d: 'M0 0L8 8' },
    { color: '#dcd6ea', line: '#655495', d: 'M3 3h2v2h-2z' },
  ] as const;
</script>

<script lang="ts">
  import { t } from '../../words/language';
  import { isReadLeftwards } from '../../core/pages/page';
  import { labelsOf } from '../../core/numbers/labels';
  import { seriesOf, stretchesOf } from '../../core/numbers/series';
  import type { Bench } from '../bench.svelte';
  import { follow } from '../mat/follow';
  import { saySeries } from './series';

  interface Props {
    bench: Bench;
    /** Indexes of the pages that are seen below. */
    shown: readonly number[];
    ongo: (index: number) => void;
  }
  let { bench, shown, ongo }: Props = $props();

  let width = $state(600);
  const list = $derived(bench.shown.list);
  const count = $derived(list.pages.length);
  const labels = $derived(labelsOf(list));
  const stretches = $derived(stretchesOf(list));
  /** Of a book that is read from right to left, the band runs so too. */
  const leftwards = $derived(isReadLeftwards(list.book));
  /** Where a page begins, and from where to where pages reach. */
  const x = (index: number) => ((leftwards ? count - index : index) / Math.max(1, count)) * width;
  const left = (from: number, to: number) => Math.min(x(from), x(to));
  const wide = (from: number, to: number) => Math.abs(x(to) - x(from));
  const pageAt = (event: { clientX: number }) => {
    const box = svg!.getBoundingClientRect();
    const along = (event.clientX - box.left) / box.width;
    return Math.min(count - 1, Math.max(0, Math.floor((leftwards ? 1 - along : along) * count)));
  };
  let svg: SVGSVGElement | undefined = $state();
  /** Colours are given from the first numbered series on; stretches without numbers have none. */
  const fillOf = (n: number) => (stretches[n]!.series && stretches[n]!.series!.style !== 'none' ? n % FILLS.length : undefined);
  function sayStretch(from: number, to: number): string {
    const numbered = labels.slice(from, to).filter(Boolean);
    if (!numbered.length) return '–';
    return numbered.length === 1 ? numbered[0]! : `${numbered[0]} – ${numbered.at(-1)}`;
  }

  /** A letter of the band's face is about this wide, in pixels. */
  const LETTER = 6.7;
  /** As much of a stretch's name and numbers as there is room for. */
  function titleOf(n: number, room: number): string {
    const { from, to, series } = stretches[n]!;
    const numbers = series || labels.some(Boolean) ? sayStretch(from, to) : t`no numbers`;
    const ways = [`${series?.name ? `${series.name}: ` : ''}${numbers}`, numbers, numbers.split(' ')[0]!];
    return ways.find((words) => words.length * LETTER < room) ?? '';
  }

  /** Drags the border where a stretch begins to another page. */
  function drag(n: number, event: PointerEvent): void {
    event.stopPropagation();
    const series = stretches[n]!.series!;
    const all = seriesOf(list);
    let to = stretches[n]!.from;
    follow(
      event,
      (now) => {
        const [least, most] = [n ? stretches[n - 1]!.from + (stretches[n - 1]!.series ? 1 : 0) : 0, stretches[n]!.to - 1];
        to = Math.min(most, Math.max(least, pageAt(now)));
        const id = list.pages[to]!.id;
        bench.tryStep(
          saySeries(
            bench,
            all.map((each) => (each.from.ids[0] === series.at ? { ...each, from: { ids: [id] } } : each)),
          ),
        );
      },
      (moved) => {
        if (moved && bench.draft.trial) bench.put(bench.draft.trial);
        else bench.leave();
      },
    );
  }
</script>

<div class="band" bind:clientWidth={width}>
  <svg bind:this={svg} {width} height="46" role="group" aria-label={t`Number series`}>
    <defs>
      {#each FILLS as { color, line, d }, n (n)}
        <pattern id="series-{n}" width="8" height="8" patternUnits="userSpaceOnUse"
          ><rect width="8" height="8" fill={color} /><path {d} stroke={line} stroke-width="1" opacity="0.55" fill="none" /></pattern
        >
      {/each}
    </defs>
    {#each stretches as { from, to }, n (from)}
      {@const fill = fillOf(n)}
      <rect
        x={left(from, to)}
        y="16"
        width={wide(from, to)}
        height="26"
        fill={fill === undefined ? 'var(--well)' : `url(#series-${fill})`}
        stroke="var(--ink-2)"
      />
      <text x={left(from, to) + 6} y="11">{titleOf(n, wide(from, to) - 10)}</text>
    {/each}
    {#if width / count > 5}
      {#each list.pages as page, index (page.id)}
        {#if index}<line x1={x(index)} x2={x(index)} y1="16" y2="42" stroke="#1d242233" />{/if}
        {#if labels[index] && width / count > 22 && labels[index].length * LETTER < width / count}
          <text class="label" x={(x(index) + x(index + 1)) / 2} y="33" text-anchor="middle">{labels[index]}</text>
        {/if}
      {/each}
    {/if}
    <rect
      class="go"
      x="0"
      y="16"
      {width}
      height="26"
      fill="transparent"
      role="slider"
      tabindex="-1"
      aria-label={t`Page shown`}
      aria-valuenow={(shown[0] ?? 0) + 1}
      aria-valuemin="1"
      aria-valuemax={count}
      onpointerdown={(event) => {
        ongo(pageAt(event));
        follow(event, (now) => ongo(pageAt(now)));
      }}
    />
    {#each shown as index (index)}
      <rect class="shown" x={left(index, index + 1)} y="14" width={Math.max(3, wide(index, index + 1))} height="30" />
    {/each}
    {#each stretches as { from, series }, n (from)}
      {#if series && from > 0}
        <g
          class="border"
          transform="translate({x(from)} 0)"
          role="separator"
          aria-label={t`Border before page ${from + 1}`}
          onpointerdown={(event) => drag(n, event)}
        >
          <rect x="-5" y="14" width="10" height="30" fill="transparent" />
          <path d="M0 14V44M-4 14H4L0 19Z" />
        </g>
      {/if}
    {/each}
  </svg>
</div>

<style>
  .band {
    padding: 6px 0 2px;
    min-width: 0;
    overflow: hidden;
  }
  svg {
    display: block;
    touch-action: none;
    user-select: none;
  }
  text {
    font: 11px var(--mono);
    fill: var(--ink);
  }
  .label {
    font-size: 11px;
    paint-order: stroke;
    stroke: #fffdf7cc;
    stroke-width: 3px;
  }
  .go {
    cursor: pointer;
  }
  .shown {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
    pointer-events: none;
  }
  .border {
    cursor: ew-resize;
  }
  .border path {
    stroke: var(--ink);
    stroke-width: 2;
    fill: var(--ink);
    pointer-events: none;
  }
</style>
