<script lang="ts">
  import { applyToBox } from '../../core/measure/matrix';
  import { artsOf } from '../../core/pages/page';
  import type { Surveys } from '../../core/model/survey';
  import type { TileView } from './gate.svelte';
  import { isFar } from './PageTile.svelte';
  import SurfaceArt from './SurfaceArt.svelte';

  interface Props {
    tiles: readonly TileView[];
    /** That of every page, else only of those whose trim is being changed. */
    all: boolean;
    surveys: Surveys;
    k: number;
  }
  /** All of pages' art, dimmed. It lies under all pages: what lies outside the bleed of one covers none of its neighbours. */
  let { tiles, all, surveys, k }: Props = $props();
  const seen = $derived(tiles.filter((tile) => (all || tile.ghost) && !isFar(tile, k)));
</script>

<g class="away" aria-hidden="true">
  {#each seen as { page, x, y } (page.id)}
    <g transform="translate({x} {y + page.trim.height}) scale(1 -1)">
      {#each artsOf(page) as art, i (i)}
        <SurfaceArt item={{ kind: 'art', ...art, matrix: art.place, clip: applyToBox(art.place, art.reach) }} {surveys} {k} />
      {/each}
    </g>
  {/each}
</g>

<style>
  .away {
    opacity: 0.38;
    pointer-events: none;
  }
</style>
