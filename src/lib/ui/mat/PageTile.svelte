<script lang="ts" module>
  /** A page lower than this on the screen, in pixels, is drawn without its bleed and guides. */
  const FAR_PX = 70;
  export const isFar = ({ page }: TileView, k: number): boolean => page.trim.height * k < FAR_PX && !page.more && !page.laid;
</script>

<script lang="ts">
  import { t } from '../../words/language';
  import type { Unit } from '../../core/measure/unit';
  import type { Surveys } from '../../core/model/survey';
  import { SIDE_WORD } from '../../words/book';
  import { LEVEL_WORD } from '../../words/checks';
  import { saySize } from '../../words/sizes';
  import FarFace from './FarFace.svelte';
  import type { TileView } from './gate.svelte';
  import NearFace from './NearFace.svelte';

  interface Props {
    view: TileView;
    /** Of lengths in its name. */
    unit: Unit;
    /** The safe margin, where the safe area is shown. */
    safe?: number | undefined;
    /** Margins and columns are shown. */
    margins: boolean;
    surveys: Surveys;
    /** Pixels a point, on screen. */
    k: number;
    onpick: (event: PointerEvent) => void;
  }
  let { view, unit, safe, margins, surveys, k, onpick }: Props = $props();

  /** All that is seen of it, for who does not see it. */
  const name = $derived(
    [
      t`Page ${view.name}`,
      SIDE_WORD[view.side],
      view.folded && t`folded in`,
      !view.page.art && t`blank`,
      view.label && t`label ${view.label}`,
      saySize(view.page.trim, unit),
      view.flag && LEVEL_WORD[view.flag],
    ]
      .filter(Boolean)
      .join(', '),
  );
</script>

<g
  transform="translate({view.x} {view.y})"
  data-pick={view.page.id}
  role="option"
  tabindex="-1"
  aria-selected={view.selected}
  aria-label={name}
  onpointerdown={(event) => event.button === 0 && onpick(event)}
>
  <!-- Its name says it all. -->
  <g aria-hidden="true">
    {#if isFar(view, k)}
      <FarFace {view} {surveys} {k} />
    {:else}
      <NearFace {view} {safe} {margins} {surveys} {k} />
    {/if}
  </g>
</g>

<style>
  g {
    cursor: default;
    outline: none;
  }
</style>
