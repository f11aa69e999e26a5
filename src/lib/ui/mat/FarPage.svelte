<script lang="ts">
  import { IDENTITY } from '../../core/measure/matrix';
  import type { Surveys } from '../../core/model/survey';
  import { pictureFor } from '../picture.svelte';

  interface Props {
    source: string;
    index: number;
    surveys: Surveys;
    /** Pixels a point, on screen. */
    k: number;
  }
  /** A whole page of a file, as seen, when it is so small that nothing but its picture can be told: as little as can be drawn. */
  let { source, index, surveys, k }: Props = $props();
  const picture = pictureFor(() => ({ source, index, matrix: IDENTITY, surveys, k }));
</script>

{#if picture.size && picture.url}<image
    href={picture.url}
    width={picture.size.width}
    height={picture.size.height}
    preserveAspectRatio="none"
    data-drawn
  />{/if}
