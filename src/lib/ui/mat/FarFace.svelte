<script lang="ts">
  import type { Surveys } from '../../core/model/survey';
  import { pictureFor } from '../picture.svelte';
  import type { TileView } from './gate.svelte';

  /** A page too far away for its bleed and guides to be seen: its trim and its art, in as few parts as can be. */
  let { view, surveys, k }: { view: TileView; surveys: Surveys; k: number } = $props();

  const width = $derived(view.page.trim.width);
  const height = $derived(view.page.trim.height);
  const px = $derived(1 / k);
  const art = $derived(view.page.art);
  const picture = pictureFor(() => art && { source: art.source, index: art.index, matrix: art.place, surveys, k });
  const FIGURE_PX = 6.1;
  const outer = $derived(view.side === 'right' ? width : 0);
  /** What stands below a page may be no wider than it: it would run into that of its neighbour. */
  const isWide = $derived(view.name.length * FIGURE_PX <= width * k);
  const FLAG = { stop: '#e2664a', look: '#f2c230', note: '#c9d3ce' };
</script>

<svg {width} {height} viewBox="0 {-height} {width} {height}">
  <rect y={-height} {width} {height} fill={picture.url || !art ? '#fffdf7' : '#f1eee4'} />
  {#if art && picture.size && picture.url}
    <image
      href={picture.url}
      width={picture.size.width}
      height={picture.size.height}
      transform="scale(1 -1) matrix({art.place.join(' ')}) translate(0 {picture.size.height}) scale(1 -1)"
      preserveAspectRatio="none"
      data-drawn
    />
  {/if}
</svg>
<rect
  {width}
  {height}
  fill="none"
  stroke={view.selected ? '#f2c230' : '#1d2422'}
  stroke-width={(view.selected ? 3 : 1.2) * px}
  stroke-dasharray={view.isNew ? `${4 * px} ${2 * px}` : undefined}
/>
{#if view.hinted}
  <rect {width} {height} fill="#ffffff55" stroke="#fff" stroke-width={2.5 * px} data-hinted />
{/if}
{#if view.ghost}
  <rect
    x={view.ghost.x0}
    y={height - view.ghost.y1}
    width={view.ghost.x1 - view.ghost.x0}
    height={view.ghost.y1 - view.ghost.y0}
    fill="none"
    stroke="#f2c230"
    stroke-width={px}
    stroke-dasharray="{3 * px} {3 * px}"
  />
{/if}
{#if isWide}
  <text x={outer} y={height + 12 * px} text-anchor={view.side === 'right' ? 'end' : 'start'} font-size={10 * px}>{view.name}</text>
{/if}
{#if view.flag}
  <circle
    cx={view.side === 'right' ? 5.5 * px : width - 5.5 * px}
    cy={height - 5.5 * px}
    r={4 * px}
    fill={FLAG[view.flag]}
    stroke="#1d2422"
    stroke-width={px}
  />
{/if}

<style>
  text {
    font-family: var(--mono);
    fill: #eef4f0;
  }
</style>
