<script lang="ts">
  import { t } from '../../words/language';
  import { objectsOf } from '../../core/pages/drawn';
  import type { Box } from '../../core/measure/box';
  import type { Bench } from '../bench.svelte';
  import { follow } from '../mat/follow';
  import type { TileView } from '../mat/gate.svelte';
  import { holdsOf } from './placing.svelte';

  interface Props {
    bench: Bench;
    tile: TileView;
    /** Pixels a point, on screen. */
    k: number;
    toMat: (event: PointerEvent) => { x: number; y: number };
  }
  /** The objects on a page, in page space, for a form that asks for one of them or for a box drawn round some. */
  let { bench, tile, k, toMat }: Props = $props();

  /** Objects on a page that can be clicked while a form asks for one: the smallest under the pointer is on top. */
  const asked = (tile: TileView): Box[] => {
    const area = ({ x0, x1, y0, y1 }: Box) => (x1 - x0) * (y1 - y0);
    const lines = holdsOf(tile.page, tile.side).filter(({ away }) => !away);
    return [...objectsOf(tile.page, bench.surveys, true), ...lines.map(({ text }) => text.box)].sort((a, b) => area(b) - area(a));
  };

  /** An area being drawn on a page, in its space. */
  let area = $state.raw<{ id: string; box: Box } | undefined>();
  function drawArea(tile: TileView, press: PointerEvent): void {
    press.stopPropagation();
    const spot = (event: PointerEvent) => {
      const at = toMat(event);
      return { x: at.x - tile.x, y: tile.y + tile.page.trim.height - at.y };
    };
    const from = spot(press);
    follow(
      press,
      (event) => {
        const to = spot(event);
        area = {
          id: tile.page.id,
          box: { x0: Math.min(from.x, to.x), x1: Math.max(from.x, to.x), y0: Math.min(from.y, to.y), y1: Math.max(from.y, to.y) },
        };
      },
      (moved) => {
        const drawn = area;
        area = undefined;
        if (moved && drawn) bench.draft.asking?.({ page: tile.page, side: tile.side, box: drawn.box });
      },
    );
  }
</script>

<rect
  class="field"
  data-pick="area"
  width={tile.page.trim.width}
  height={tile.page.trim.height}
  role="option"
  aria-selected="false"
  tabindex="-1"
  aria-label={t`An area of page ${tile.name}`}
  onpointerdown={(event) => drawArea(tile, event)}
/>
{#each asked(tile) as box, n (n)}
  <rect
    class="object"
    data-pick="object"
    x={box.x0}
    y={box.y0}
    width={box.x1 - box.x0}
    height={box.y1 - box.y0}
    stroke-width={1.2 / k}
    role="option"
    aria-selected="false"
    tabindex="-1"
    aria-label={t`Object ${n + 1} on page ${tile.name}`}
    onpointerdown={(event) => {
      event.stopPropagation();
      bench.draft.asking?.({ page: tile.page, side: tile.side, box });
    }}
  />
{/each}
{#if area?.id === tile.page.id}
  {@const { x0, x1, y0, y1 } = area.box}
  <rect class="object drawn" x={x0} y={y0} width={x1 - x0} height={y1 - y0} stroke-width={1.2 / k} />
{/if}

<style>
  .field {
    fill: transparent;
    cursor: crosshair;
  }
  .drawn {
    pointer-events: none;
  }
  .object {
    fill: #f2c23014;
    stroke: var(--act);
    cursor: crosshair;
  }
  .object:hover {
    fill: #f2c23066;
  }
</style>
