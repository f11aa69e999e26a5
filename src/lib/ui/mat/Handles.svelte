<script lang="ts">
  import type { Box } from '../../core/measure/box';
  import type { Grip } from './dragging';

  interface Props {
    /** In points on the mat, y down. */
    box: Box;
    grips: readonly Grip[];
    k: number;
    ongrip: (grip: Grip, event: PointerEvent) => void;
  }
  let { box, grips, k, ongrip }: Props = $props();
  const size = $derived(9 / k);
  const at = (grip: Grip) => ({
    x: grip.x < 0 ? box.x0 : grip.x > 0 ? box.x1 : (box.x0 + box.x1) / 2,
    y: grip.y < 0 ? box.y0 : grip.y > 0 ? box.y1 : (box.y0 + box.y1) / 2,
  });
  const CURSOR = (grip: Grip) => (grip.x && grip.y ? (grip.x === grip.y ? 'nwse-resize' : 'nesw-resize') : grip.x ? 'ew-resize' : 'ns-resize');
</script>

<g>
  <rect class="box" x={box.x0} y={box.y0} width={box.x1 - box.x0} height={box.y1 - box.y0} stroke-width={1.5 / k} />
  {#each grips as grip (`${grip.x}${grip.y}`)}
    {@const { x, y } = at(grip)}
    <rect
      class="grip"
      data-pick="grip"
      data-grip="{grip.x},{grip.y}"
      role="presentation"
      x={x - size / 2}
      y={y - size / 2}
      width={size}
      height={size}
      stroke-width={1.2 / k}
      style:cursor={CURSOR(grip)}
      onpointerdown={(event) => {
        event.stopPropagation();
        if (event.button === 0) ongrip(grip, event);
      }}
    />
  {/each}
</g>

<style>
  .box {
    fill: none;
    stroke: var(--pick);
    pointer-events: none;
  }
  .grip {
    fill: #fffdf7;
    stroke: #1d2422;
  }
</style>
