<script lang="ts">
  import type { Surveys } from '../../core/model/survey';
  import FarFace from './FarFace.svelte';
  import type { TileView } from './gate.svelte';
  import NearFace from './NearFace.svelte';

  interface Props {
    view: TileView;
    /** The safe margin, where the safe area is shown. */
    safe?: number | undefined;
    /** Margins and columns are shown. */
    margins: boolean;
    /** What lies outside the bleed is shown, dimmed. */
    away: boolean;
    surveys: Surveys;
    /** Pixels a point, on screen. */
    k: number;
    onpick: (event: PointerEvent) => void;
  }
  let { view, safe, margins, away, surveys, k, onpick }: Props = $props();

  const sideWord = $derived(view.side === 'left' || view.side === 'right' ? `${view.side}-hand` : `${view.side} page`);
  /** A page lower than this on the screen, in pixels, is drawn without its bleed and guides. */
  const FAR_PX = 70;
</script>

<g
  transform="translate({view.x} {view.y})"
  data-pick={view.page.id}
  role="option"
  tabindex="-1"
  aria-selected={view.selected}
  aria-label="Page {view.name}, {sideWord}{view.folded ? ', folded in' : ''}{view.page.art ? '' : ', blank'}{view.label
    ? `, label ${view.label}`
    : ''}"
  onpointerdown={(event) => event.button === 0 && onpick(event)}
>
  {#if view.page.trim.height * k < FAR_PX && !view.page.more && !view.page.laid}
    <FarFace {view} {surveys} {k} />
  {:else}
    <NearFace {view} {safe} {margins} away={away || !!view.ghost} {surveys} {k} />
  {/if}
</g>

<style>
  g {
    cursor: default;
    outline: none;
  }
</style>
