<script lang="ts">
  import { heightOf, widthOf, type Size } from '../../core/measure/box';
  import type { Surface } from '../../core/surface/surface';

  /** The first spread of a job, from pictures that the server drew. */
  let { spread }: { spread: { side: 'left' | 'right'; surface: Surface; media?: Size }[] } = $props();
  const id = $props.id();

  const WIDTH = 150;
  const HEIGHT = 128;
  const total = $derived(spread.reduce((sum, { surface }) => sum + widthOf(surface.trim), 0));
  const tall = $derived(Math.max(1, ...spread.map(({ surface }) => heightOf(surface.trim))));
  const k = $derived(Math.min((WIDTH - 34) / Math.max(1, total), (HEIGHT - 30) / tall));
  const places = $derived(
    spread.map((each, i) => ({
      ...each,
      x: (WIDTH - total * k) / 2 + spread.slice(0, i).reduce((sum, { surface }) => sum + widthOf(surface.trim) * k, 0),
    })),
  );
</script>

<svg width={WIDTH} height={HEIGHT} viewBox="0 0 {WIDTH} {HEIGHT}" aria-hidden="true">
  <rect width={WIDTH} height={HEIGHT} fill="#2c4b46" />
  {#each places as { surface, media, x }, i (i)}
    <g transform="translate({x} {(HEIGHT + heightOf(surface.trim) * k) / 2}) scale({k} {-k})">
      <clipPath id="{id}-{i}"><rect width={widthOf(surface.trim)} height={heightOf(surface.trim)} /></clipPath>
      <rect width={widthOf(surface.trim)} height={heightOf(surface.trim)} fill="#fffdf7" />
      <g clip-path="url(#{id}-{i})">
        {#each surface.items as item, n (n)}
          {#if item.kind === 'art' && media}
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
    <text x={WIDTH / 2} y={HEIGHT / 2 + 4} text-anchor="middle">no pages yet</text>
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
