<script lang="ts">
  import type { Box } from '../../core/measure/box';
  import type { Surveys } from '../../core/model/survey';
  import type { Item } from '../../core/model/surface';
  import SurfaceArt from './SurfaceArt.svelte';
  import SurfaceLine from './SurfaceLine.svelte';
  import SurfaceText from './SurfaceText.svelte';

  interface Props {
    items: readonly Item[];
    surveys: Surveys;
    /** Pixels a point, on screen. */
    k: number;
    /** Art shows no further than this. */
    within?: Box;
  }
  /** What is printed on a surface, in its space; marks and folds are drawn by whoever shows sheets. */
  let { items, surveys, k, within }: Props = $props();
</script>

{#each items as item, i (i)}
  {#if item.kind === 'art'}<SurfaceArt {item} {surveys} {k} {...within ? { within } : {}} />
  {:else if item.kind === 'text'}<SurfaceText {item} />
  {:else if !item.layer}<SurfaceLine {item} />{/if}
{/each}
