<script lang="ts">
  import { getContext, onDestroy } from 'svelte';
  import { heightOf, widthOf, type Box } from '../../core/measure/box';
  import type { Level } from '../../core/checks/finding';
  import type { Page, Side } from '../../core/pages/page';
  import type { Surveys } from '../../core/pages/survey';
  import type { Pictures } from '../pictures.svelte';

  /** A page too far away for its bleed and guides to be seen: its trim and its art, in as few parts as can be. */
  interface Props {
    page: Page;
    side: Side;
    x: number;
    y: number;
    position: number;
    label: string;
    picked: boolean;
    fresh: boolean;
    flag?: Level | undefined;
    ghost?: Box | undefined;
    surveys: Surveys;
    k: number;
    onpick: (event: PointerEvent) => void;
  }
  let { page, side, x, y, position, label, picked, fresh, flag, ghost, surveys, k, onpick }: Props = $props();

  const pictures = getContext<Pictures>('pictures');
  const { width, height } = $derived(page.trim);
  const px = $derived(1 / k);
  const art = $derived(page.art);
  const source = $derived(art && surveys[art.source]?.pages[art.index]);
  const size = $derived(source && { width: widthOf(source.boxes.media), height: heightOf(source.boxes.media) });
  const picture = $derived(art && pictures.ready.get(`${art.source}:${art.index}`));
  $effect(() => {
    if (art && source && size)
      pictures.want(
        art.source,
        art.index,
        source,
        Math.max(size.width, size.height) * Math.hypot(art.place[0], art.place[1]) * k * (globalThis.devicePixelRatio ?? 1),
      );
  });
  onDestroy(() => art && pictures.unwant(art.source, art.index));
  const FLAG = { stop: '#e2664a', look: '#f2c230', note: '#c9d3ce' };
</script>

<g
  transform="translate({x} {y})"
  data-pick={page.id}
  role="option"
  tabindex="-1"
  aria-selected={picked}
  aria-label="Page {position}, {side}-hand{art ? '' : ', blank'}{label ? `, label ${label}` : ''}"
  onpointerdown={(event) => event.button === 0 && onpick(event)}
>
  <svg {width} {height} viewBox="0 {-height} {width} {height}">
    <rect y={-height} {width} {height} fill={picture || !art ? '#fffdf7' : '#f1eee4'} />
    {#if art && size && picture}
      <image
        href={picture.url}
        width={size.width}
        height={size.height}
        transform="scale(1 -1) matrix({art.place.join(' ')}) translate(0 {size.height}) scale(1 -1)"
        preserveAspectRatio="none"
        data-drawn
      />
    {/if}
  </svg>
  <rect
    {width}
    {height}
    fill="none"
    stroke={picked ? '#f2c230' : '#1d2422'}
    stroke-width={(picked ? 3 : 1.2) * px}
    stroke-dasharray={fresh ? `${4 * px} ${2 * px}` : undefined}
  />
  {#if ghost}
    <rect
      x={ghost.x0}
      y={height - ghost.y1}
      width={ghost.x1 - ghost.x0}
      height={ghost.y1 - ghost.y0}
      fill="none"
      stroke="#f2c230"
      stroke-width={px}
      stroke-dasharray="{3 * px} {3 * px}"
    />
  {/if}
  <text x={side === 'right' ? width : 0} y={height + 12 * px} text-anchor={side === 'right' ? 'end' : 'start'} font-size={10 * px}>{position}</text>
  {#if flag}
    <circle cx={side === 'right' ? 5 * px : width - 5 * px} cy={height + 8 * px} r={4 * px} fill={FLAG[flag]} stroke="#1d2422" stroke-width={px} />
  {/if}
</g>

<style>
  g {
    cursor: default;
    outline: none;
  }
  text {
    font-family: var(--mono);
    fill: #eef4f0;
  }
</style>
