<script lang="ts">
  import { heightOf, intersect, widthOf, type Box } from '../../core/measure/box';
  import type { Surveys } from '../../core/model/survey';
  import type { ArtItem } from '../../core/model/surface';
  import { pictureFor } from '../picture.svelte';

  interface Props {
    item: ArtItem;
    surveys: Surveys;
    /** Pixels a point, on screen. */
    k: number;
    /** Shows no more than this, besides the item's own clip. */
    within?: Box;
  }
  let { item, surveys, k, within }: Props = $props();

  const id = $props.id();
  const clip = $derived(within ? intersect(within, item.clip) : item.clip);
  const picture = pictureFor(() => ({ ...item, clear: !!item.laid, surveys, k }));
</script>

<clipPath id="clip-{id}"><rect x={clip.x0} y={clip.y0} width={widthOf(clip)} height={heightOf(clip)} /></clipPath>
{#if item.laid}
  {@const { reach } = item.laid}
  <clipPath id="reach-{id}"
    ><rect x={reach.x0} y={reach.y0} width={widthOf(reach)} height={heightOf(reach)} transform="matrix({item.matrix.join(' ')})" /></clipPath
  >
{/if}
{#if picture.size && picture.url}
  <g clip-path="url(#clip-{id})" opacity={item.laid?.opacity} style:mix-blend-mode={item.laid?.overprint ? 'multiply' : undefined}>
    <!-- A clip path counts from the space of what it clips, its transform included: so not on the image itself. -->
    <g clip-path={item.laid ? `url(#reach-${id})` : undefined}>
      <image
        href={picture.url}
        width={picture.size.width}
        height={picture.size.height}
        transform="matrix({item.matrix.join(' ')}) translate(0 {picture.size.height}) scale(1 -1)"
        preserveAspectRatio="none"
        data-drawn
      />
    </g>
  </g>
{:else if picture.size}
  <g clip-path="url(#clip-{id})">
    <rect x={clip.x0} y={clip.y0} width={widthOf(clip)} height={heightOf(clip)} fill={picture.broken ? '#f3dcd6' : '#f1eee4'} />
  </g>
{/if}
