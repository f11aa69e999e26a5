<script lang="ts">
  import { t } from '../../words/language';
  import type { Bench } from '../bench.svelte';
  import type { TileView } from '../mat/gate.svelte';
  import { clickAway, dragLine, dragStamp, holdsOf, stampsOf } from './placing.svelte';

  interface Props {
    bench: Bench;
    tile: TileView;
    /** Pixels a point, on screen. */
    k: number;
    toMat: (event: PointerEvent) => { x: number; y: number };
  }
  /** Handles for the lines and stamps on a page, in page space: to move them, or to remove a line from this page alone. */
  let { bench, tile, k, toMat }: Props = $props();
</script>

{#each holdsOf(tile.page, tile.side) as hold (hold.key)}
  {@const { box, item } = hold.text}
  {@const px = 1 / k}
  <g class="hold" class:away={hold.away} class:open={bench.draft.step?.id === hold.matter.step} data-pick="line">
    <rect
      class="grip"
      x={box.x0 - 4 * px}
      y={box.y0 - 3 * px}
      width={box.x1 - box.x0 + 8 * px}
      height={box.y1 - box.y0 + 6 * px}
      stroke-width={px}
      stroke-dasharray="{3 * px} {2 * px}"
      role="option"
      aria-selected={bench.draft.step?.id === hold.matter.step}
      tabindex="-1"
      aria-label={t`${hold.away ? t`Clicked away: ` : ''}“${item.text}” on page ${tile.name}`}
      onpointerdown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        if (hold.away) clickAway(bench, hold, tile.page);
        else dragLine(bench, hold, tile, event, toMat, k);
      }}
    />
    <g
      class="cross"
      role="option"
      aria-selected={hold.away}
      tabindex="-1"
      aria-label={t`${hold.away ? t`Give back` : t`Click away`} “${item.text}” on page ${tile.name}`}
      transform="translate({box.x1 + 9 * px} {box.y1 + 4 * px}) scale({px})"
      onpointerdown={(event) => {
        event.stopPropagation();
        clickAway(bench, hold, tile.page);
      }}
    >
      <circle r="7" />
      <path d={hold.away ? 'M-3.5 0H3.5M0 -3.5V3.5' : 'M-3 -3L3 3M-3 3L3 -3'} />
    </g>
  </g>
{/each}
{#each stampsOf(tile.page, tile.side) as stamp (stamp.key)}
  {@const { box } = stamp}
  <rect
    class="grip stamp"
    class:open={bench.draft.step?.id === stamp.laid.step}
    data-pick="stamp"
    x={box.x0}
    y={box.y0}
    width={box.x1 - box.x0}
    height={box.y1 - box.y0}
    stroke-width={1 / k}
    stroke-dasharray="{3 / k} {2 / k}"
    role="option"
    aria-selected={bench.draft.step?.id === stamp.laid.step}
    tabindex="-1"
    aria-label={t`Stamp on page ${tile.name}`}
    onpointerdown={(event) => {
      if (event.button !== 0) return;
      event.stopPropagation();
      dragStamp(bench, stamp, tile, event, toMat);
    }}
  />
{/each}

<style>
  .grip {
    fill: transparent;
    stroke: transparent;
    cursor: move;
  }
  .hold:hover .grip,
  .hold.open .grip {
    stroke: var(--act);
  }
  .away .grip {
    stroke: #77705d;
    cursor: copy;
  }
  .cross {
    opacity: 0;
    cursor: pointer;
  }
  .hold:hover .cross,
  .away .cross {
    opacity: 1;
  }
  .cross circle {
    fill: var(--card);
    stroke: var(--ink);
  }
  .cross path {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .stamp:hover,
  .stamp.open {
    stroke: var(--act);
  }
</style>
