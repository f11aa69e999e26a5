<script lang="ts">
  import { getContext, onDestroy } from 'svelte';
  import { heightOf, intersect, widthOf, type Box } from '../../core/measure/box';
  import type { Surveys } from '../../core/pages/survey';
  import type { ArtItem } from '../../core/surface/surface';
  import type { Pictures } from '../pictures.svelte';

  interface Props {
    item: ArtItem;
    surveys: Surveys;
    /** Pixels a point, on screen. */
    k: number;
    /** Shows no more than this, besides the item's own clip. */
    within?: Box;
  }
  let { item, surveys, k, within }: Props = $props();

  const pictures = getContext<Pictures>('pictures');
  const id = $props.id();
  const page = $derived(surveys[item.source]?.pages[item.index]);
  const clip = $derived(within ? intersect(within, item.clip) : item.clip);
  const picture = $derived(pictures.ready.get(`${item.source}:${item.index}`));
  const size = $derived(page && { width: widthOf(page.boxes.media), height: heightOf(page.boxes.media) });
  $effect(() => {
    if (page && size)
      pictures.want(
        item.source,
        item.index,
        page,
        Math.max(size.width, size.height) * Math.hypot(item.matrix[0], item.matrix[1]) * k * (globalThis.devicePixelRatio ?? 1),
      );
  });
  onDestroy(() => pictures.unwant(item.source, item.index));
</script>

<clipPath id="clip-{id}"><rect x={clip.x0} y={clip.y0} width={widthOf(clip)} height={heightOf(clip)} /></clipPath>
{#if size && picture}
  <g clip-path="url(#clip-{id})">
    <image
      href={picture.url}
      width={size.width}
      height={size.height}
      transform="matrix({item.matrix.join(' ')}) translate(0 {size.height}) scale(1 -1)"
      preserveAspectRatio="none"
      data-drawn
    />
  </g>
{:else if size}
  <g clip-path="url(#clip-{id})">
    <rect x={clip.x0} y={clip.y0} width={widthOf(clip)} height={heightOf(clip)} fill={pictures.broken.has(item.source) ? '#f3dcd6' : '#f1eee4'} />
  </g>
{/if}
