<script lang="ts">
  import { t } from '../../words/language';
  import { heightOf, widthOf, type Size } from '../../core/measure/box';
  import type { Side } from '../../core/model/page';
  import type { Surface } from '../../core/model/surface';

  /** The first spread of a job, from pictures that the server drew. */
  let { spread }: { spread: { side: Side; surface: Surface; media?: Size }[] } = $props();
  const id = $props.id();

  const WIDTH = 150;
  const HEIGHT = 128;
  /** Bound at the head, a spread's pages lie one above the other. */
  const stacked = $derived(spread.some(({ side }) => side === 'upper' || side === 'lower'));
  const sum = (lengths: number[]) => lengths.reduce((total, length) => total + length, 0);
  const widths = $derived(spread.map(({ surface }) => widthOf(surface.trim)));
  const heights = $derived(spread.map(({ surface }) => heightOf(surface.trim)));
  const wide = $derived(stacked ? Math.max(...widths) : sum(widths));
  const tall = $derived(stacked ? sum(heights) : Math.max(1, ...heights));
  const k = $derived(Math.min((WIDTH - 34) / Math.max(1, wide), (HEIGHT - 30) / tall));
  const places = $derived(
    spread.map((each, i) => ({
      ...each,
      x: (WIDTH - wide * k) / 2 + (stacked ? 0 : sum(widths.slice(0, i)) * k),
      foot: stacked ? (HEIGHT - tall * k) / 2 + sum(heights.slice(0, i + 1)) * k : (HEIGHT + heights[i]! * k) / 2,
    })),
  );
</script>

<svg width={WIDTH} height={HEIGHT} viewBox="0 0 {WIDTH} {HEIGHT}" aria-hidden="true">
  <rect width={WIDTH} height={HEIGHT} fill="#2c4b46" />
  {#each places as { surface, media, x, foot }, i (i)}
    <g transform="translate({x} {foot}) scale({k} {-k})">
      <clipPath id="{id}-{i}"><rect width={widthOf(surface.trim)} height={heightOf(surface.trim)} /></clipPath>
      <rect width={widthOf(surface.trim)} height={heightOf(surface.trim)} fill="#fffdf7" />
      <g clip-path="url(#{id}-{i})">
        {#each surface.items as item, n (n)}
          {#if item.kind === 'art' && !item.laid && media}
            <image
              href="/api/sources/{item.source}/pages/{item.index}"
              width={media.width}
              height={media.height}
              transform="matrix({item.matrix.join(' ')}) translate(0 {media.height}) scale(1 -1)"
              preserveAspectRatio="none"
            />
          {/if}
        {/each}
      </g>
      <rect width={widthOf(surface.trim)} height={heightOf(surface.trim)} fill="none" stroke="#1d2422" stroke-width={1.2 / k} />
    </g>
  {:else}
    <text x={WIDTH / 2} y={HEIGHT / 2 + 4} text-anchor="middle">{t`no pages yet`}</text>
  {/each}
</svg>

<style>
  svg {
    display: block;
    height: 100%;
    width: 100%;
    background: #2c4b46;
  }
  text {
    font: 12px var(--narrow);
    fill: var(--mat-text);
  }
</style>
